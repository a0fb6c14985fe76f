import type { ToolId, ToolInputs } from '@even-bed/core';
import type { Typed } from './toolForm';

/** What stands in each tool when it is first opened: made-up, common sizes, to be typed over. */
export const EXAMPLES: { [T in ToolId]: Typed<ToolInputs[T]> } = {
  stack: {
    before: [
      { name: 'plate', thickness: '3', metal: true },
      { name: 'glass', thickness: '4', metal: false },
    ],
    after: [
      { name: 'plate', thickness: '3', metal: true },
      { name: 'base', thickness: '1.2', limit: '110', metal: false },
      { name: 'spring sheet', thickness: '0.5', limit: '120', metal: true },
    ],
    finding: { by: 'stop-screw', pitch: '0.5', clockwise: 'sooner' },
    family: 'filament',
    adjusters: { up: '2', down: '3' },
    spacerLayer: '0.2',
    buildHeight: '',
    slack: '',
  },
  underbed: {
    parts: [
      { name: 'belt clamp', height: '7.2' },
      { name: 'insulation', height: '5.5' },
    ],
    springCompressed: '11.6',
    washers: '0',
    screw: 'M3',
    pitch: '0.5',
    backOff: '0',
    travel: '',
  },
  top: {
    items: [
      { name: 'rear clip', kind: 'clip', height: '2.5', beside: false },
      { name: 'plate screw', kind: 'screw', height: '1.65', beside: false, thread: 'M3', hole: '3.4' },
    ],
    base: '1.2',
    sheet: '0.5',
    plate: '3',
    passes: [{ name: 'fan duct', above: '2' }],
    travel: '0',
  },
  size: {
    plate: { width: '235', depth: '235' },
    print: { x: '5', y: '5', width: '225', depth: '225' },
    piece: { width: '235', depth: '235', x: '', y: '' },
    notches: [],
    keepOuts: [{ name: 'front-left knob', x: '0', y: '0', width: '12', depth: '12' }],
    pad: null,
  } as unknown as Typed<ToolInputs['size']>,
  blanks: {
    sheet: { width: '305', depth: '305' },
    pieces: [{ name: '', width: '133', depth: '159', count: '', corners: '0' }],
    kerf: '1',
    trim: '0',
    method: 'snap',
    mayRotate: true,
    sheets: '1',
    price: '',
  },
  soak: {
    layers: [
      { material: 'aluminium', thickness: '3', dry: false },
      { material: 'base', thickness: '1.2', dry: false },
      { material: 'steel', thickness: '0.5', dry: false },
    ],
    flux: '4000',
    setpoint: '100',
    ambient: '22',
    loss: '12',
    within: '2',
  },
  together: { face: 'smooth-pei', limit: '', printed: 'petg', heat: '' } as Typed<ToolInputs['together']>,
  spacer: {
    shape: 'pad',
    thickness: '3.175',
    layer: '0.2',
    depth: '20',
    width: '12',
    hole: '3.4',
  } as Typed<ToolInputs['spacer']>,
};
