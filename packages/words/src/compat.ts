import type { CompatAnswer, Face } from '@even-bed/core';

export const ANSWER_WORDS: Record<CompatAnswer, string> = {
  yes: 'Yes.',
  care: 'With care.',
  unknown: 'Not known.',
  no: 'No.',
};

export const FACE_NAMES: Record<Face, string> = {
  'smooth-pei': 'Smooth PEI',
  textured: 'Textured powder coat',
  'patterned-film': 'Patterned film',
  'polymer-film': 'Polymer film or sheet',
  'bare-steel': 'Bare steel',
  glass: 'Glass, plain',
  'coated-glass': 'Glass, coated',
  fibreglass: 'Fibreglass laminate',
  'flexible-cover': 'Flexible cover',
  'magnetic-base': 'Magnetic base',
  aluminium: 'Resin platform, aluminium',
  'flex-plate': 'Flex plate for resin',
  'release-film': 'Vat film',
};

export const THING_NAMES: Record<string, string> = {
  pla: 'PLA',
  petg: 'PETG',
  abs: 'ABS or ASA',
  tpu: 'TPU',
  nylon: 'Nylon',
  pc: 'Polycarbonate',
  pp: 'Polypropylene',
  resin: 'Resin',
  water: 'Water',
  soap: 'Soap and water',
  alcohol: 'Alcohol',
  acetone: 'Acetone',
  spirits: 'Spirits',
  microfibre: 'Microfibre',
  'paper-towel': 'Paper towel',
  'scrub-pad': 'Scrub pad',
  'steel-wool': 'Steel wool, 000 or finer',
  'fine-grit': 'Grit of 1500 or finer',
  'coarse-grit': 'Grit of 400 or coarser',
  none: 'No glue',
  'glue-film': 'Glue stick, a thin film',
  'glue-heavy': 'Glue stick, heavy',
  hand: 'By bare hand',
  'gloved-hand': 'By hand, in gloves',
  'plastic-scraper': 'Plastic scraper',
  'metal-scraper': 'Metal scraper',
  flexing: 'Flexing',
};
