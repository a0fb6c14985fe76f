import { COMPATIBILITY_RULES } from './compatibilityRules';

/** What a face is made of, as far as care goes. */
export const FACES = [
  'smooth-pei',
  'textured',
  'patterned-film',
  'polymer-film',
  'bare-steel',
  'glass',
  'coated-glass',
  'fibreglass',
  'flexible-cover',
  'magnetic-base',
  'aluminium',
  'flex-plate',
  'release-film',
] as const;
export type Face = (typeof FACES)[number];

export const PRINTED = ['pla', 'petg', 'abs', 'tpu', 'nylon', 'pc', 'pp', 'resin'] as const;
export type Printed = (typeof PRINTED)[number];
export const SOLVENTS = ['water', 'soap', 'alcohol', 'acetone', 'spirits'] as const;
export type Solvent = (typeof SOLVENTS)[number];
export const ABRASIVES = ['microfibre', 'paper-towel', 'scrub-pad', 'steel-wool', 'fine-grit', 'coarse-grit'] as const;
export type Abrasive = (typeof ABRASIVES)[number];
export const GLUES = ['none', 'glue-film', 'glue-heavy'] as const;
export type Glue = (typeof GLUES)[number];
export const TOOLS = ['hand', 'gloved-hand', 'plastic-scraper', 'metal-scraper', 'flexing'] as const;
export type HandTool = (typeof TOOLS)[number];

/** "unknown": the table can't tell, or was not told enough. */
export type CompatAnswer = 'yes' | 'care' | 'unknown' | 'no';

export interface CompatQuestion {
  face: Face;
  /** °C it stands for hours; null when not known. */
  limit?: number | null;
  printed?: Printed | undefined;
  solvent?: Solvent | undefined;
  abrasive?: Abrasive | undefined;
  glue?: Glue | undefined;
  tool?: HandTool | undefined;
  /** °C of the bed while it is done. */
  heat?: number | undefined;
}

export interface CompatRule {
  id: string;
  /** Faces that it is about; left out: every one. */
  on?: readonly Face[];
  printed?: readonly Printed[];
  solvent?: readonly Solvent[];
  abrasive?: readonly Abrasive[];
  glue?: readonly Glue[];
  tool?: readonly HandTool[];
  /** Not when one of these is named as the glue. */
  unless?: readonly Glue[];
  /** Only from, or below, so many °C. */
  from?: number;
  below?: number;
  answer: CompatAnswer;
  because: string;
  /** Who sees it otherwise, and why. */
  school?: string;
}

export interface CompatReason {
  /** Which of the things asked about it answers; "heat" for the limit. */
  about: ('printed' | 'solvent' | 'abrasive' | 'glue' | 'tool' | 'heat')[];
  answer: CompatAnswer;
  because: string;
  school: string | null;
}

const THINGS = ['printed', 'solvent', 'abrasive', 'glue', 'tool'] as const;

/**
 * Whether things go together with a face: yes, with care, or no, each with its reason. The gravest comes first and is
 * the answer to the whole. A thing that no rule knows is "not known". Heat counts without being asked: what is printed brings
 * its usual bed along, and a face whose limit nobody said is held to the usual one of its kind.
 * @param shop the shop's own answers, by thing ("acetone"): they stand in front of the table's
 * Source: common practice throughout; the table says where schools differ.
 * @example compatibility({ face: 'smooth-pei', printed: 'petg' }).answer // 'care'
 */
export function compatibility(
  question: CompatQuestion,
  shop: Partial<Record<string, CompatAnswer>> = {},
): { answer: CompatAnswer; reasons: CompatReason[] } {
  guard(question);
  const reasons: CompatReason[] = [...heatOf(question)];
  for (const rule of COMPATIBILITY_RULES)
    if (applies(rule, question))
      reasons.push({
        about: [
          ...THINGS.filter((thing) => rule[thing] !== undefined),
          ...(rule.from !== undefined || rule.below !== undefined ? (['heat'] as const) : []),
        ],
        answer: rule.answer,
        because: rule.because,
        school: rule.school ?? null,
      });
  for (const thing of THINGS) {
    const asked = question[thing];
    if (asked === undefined) continue;
    const own = shop[asked];
    if (own) {
      // What the shop says of a thing alone replaces what the table says of it alone.
      for (let i = reasons.length - 1; i >= 0; i--)
        if (reasons[i]!.about.length === 1 && reasons[i]!.about[0] === thing) reasons.splice(i, 1);
      reasons.push({
        about: [thing],
        answer: own,
        because: "So says the shop's own list for this kind.",
        school: null,
      });
    } else if (!reasons.some(({ about }) => about.includes(thing)))
      reasons.push({
        about: [thing],
        answer: 'unknown',
        because: 'Nothing is known of this here. Try a corner first.',
        school: null,
      });
  }
  reasons.sort((p, q) => GRAVITY[q.answer] - GRAVITY[p.answer]);
  return { answer: reasons[0]?.answer ?? 'unknown', reasons };
}

const GRAVITY: Record<CompatAnswer, number> = { yes: 0, care: 1, unknown: 2, no: 3 };

/** °C of the bed that a material is usually printed at. Common practice. */
const USUAL_BED: Partial<Record<Printed, number>> = {
  pla: 60,
  petg: 80,
  abs: 100,
  tpu: 50,
  nylon: 80,
  pc: 105,
  pp: 85,
};

/** °C that faces of a kind usually stand for hours, where nobody has said better. Common practice. */
const USUAL_LIMIT: Partial<Record<Face, number>> = {
  'smooth-pei': 110,
  textured: 120,
  'patterned-film': 90,
  'polymer-film': 90,
  glass: 120,
  'coated-glass': 110,
  fibreglass: 130,
  'flexible-cover': 80,
  'magnetic-base': 80,
};

/** Whether the face stands the bed that is wanted, or that what is printed usually wants. */
function heatOf({ face, limit, heat, printed }: CompatQuestion): CompatReason[] {
  const wanted = heat ?? (printed === undefined ? undefined : USUAL_BED[printed]);
  const stands = limit ?? USUAL_LIMIT[face];
  if (wanted === undefined || stands === undefined) return [];
  const it =
    limit == null ? `Such faces usually stand about ${stands} °C for hours` : `It stands ${stands} °C for hours`;
  const bed = heat === undefined ? `this is usually printed at ${wanted} °C` : `${wanted} °C is wanted`;
  const answer = wanted > stands ? 'no' : wanted > stands - 10 ? 'care' : 'yes';
  // What was not asked and is no matter needs no line.
  if (answer === 'yes' && (heat === undefined || limit == null)) return [];
  const because =
    answer === 'no' ? `${it}, and ${bed}.` : answer === 'care' ? `${it}: ${bed}, which leaves little.` : `${it}.`;
  return [{ about: ['heat'], answer, because, school: null }];
}

function guard({ face, limit, heat, ...things }: CompatQuestion): void {
  const known: Record<string, readonly string[]> = {
    printed: PRINTED,
    solvent: SOLVENTS,
    abrasive: ABRASIVES,
    glue: GLUES,
    tool: TOOLS,
  };
  const word = (name: string, value: string | undefined, values: readonly string[]) => {
    if (value !== undefined && !values.includes(value))
      throw new RangeError(`compatibility knows ${name}s ${values.join(', ')}, got ${value}`);
  };
  word('face', face, FACES);
  for (const thing of THINGS) word(thing, things[thing], known[thing]!);
  for (const [name, value] of [
    ['a limit', limit],
    ['a bed', heat],
  ] as const)
    if (value != null && !(Math.abs(value) < 1000))
      throw new RangeError(`compatibility needs ${name} in °C, got ${value}`);
}

function applies(rule: CompatRule, question: CompatQuestion): boolean {
  if (rule.on && !rule.on.includes(question.face)) return false;
  for (const thing of THINGS) {
    const wanted = rule[thing] as readonly string[] | undefined;
    const asked = question[thing];
    if (wanted && (asked === undefined || !wanted.includes(asked))) return false;
  }
  if (rule.unless && question.glue !== undefined && rule.unless.includes(question.glue)) return false;
  // Glue lies under the print: its bed is the one that the material usually wants. What is cleaned or taken off is not.
  const usual = rule.glue && question.printed !== undefined ? USUAL_BED[question.printed] : undefined;
  const heat = question.heat ?? usual;
  if (rule.from !== undefined && !(heat !== undefined && heat >= rule.from)) return false;
  return rule.below === undefined || (heat !== undefined && heat < rule.below);
}

/**
 * The kind of material that a person's words mean; undefined when they say none that the table knows.
 * @example printedOf('PETG black') // 'petg'
 */
export function printedOf(words: string): Printed | undefined {
  const text = words.toLowerCase();
  if (/resin/.test(text)) return 'resin';
  if (/petg|pctg|pet-?g/.test(text)) return 'petg';
  if (/\b(abs|asa)\b/.test(text)) return 'abs';
  if (/tpu|tpe|flex/.test(text)) return 'tpu';
  if (/nylon|\bpa(6|11|12|[- ]?cf)?\b/.test(text)) return 'nylon';
  if (/\bpc\b|polycarb/.test(text)) return 'pc';
  if (/\bpp\b|polyprop/.test(text)) return 'pp';
  return /\b(r-?|silk|wood|mat+e?|tough)?pla(\b|[+\d_])/.test(text) ? 'pla' : undefined;
}
