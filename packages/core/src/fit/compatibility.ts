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
export const TOOLS = ['hand', 'plastic-scraper', 'metal-scraper', 'flexing'] as const;
export type HandTool = (typeof TOOLS)[number];

export type CompatAnswer = 'yes' | 'care' | 'no';

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
  /** Only from, or below, so many °C. */
  from?: number;
  below?: number;
  answer: CompatAnswer;
  because: string;
  /** Who sees it otherwise, and why. */
  school?: string;
}

export interface CompatFinding {
  /** Which of the things asked about it answers; "heat" for the limit. */
  about: ('printed' | 'solvent' | 'abrasive' | 'glue' | 'tool' | 'heat')[];
  answer: CompatAnswer;
  because: string;
  school: string | null;
}

const THINGS = ['printed', 'solvent', 'abrasive', 'glue', 'tool'] as const;

/**
 * Whether things go together with a face: yes, with care, or no, each with its reason. The gravest comes first and is
 * the answer to the whole. A thing that no rule knows is answered "with care".
 * @param shop the shop's own answers, by thing ("acetone"): they stand in front of the table's
 * Source: common practice throughout; the table says where schools differ.
 * @example compatibility({ face: 'smooth-pei', printed: 'petg' }).answer // 'care'
 */
export function compatibility(
  question: CompatQuestion,
  shop: Partial<Record<string, CompatAnswer>> = {},
): { answer: CompatAnswer; findings: CompatFinding[] } {
  const findings: CompatFinding[] = [];
  const { limit, heat } = question;
  if (heat !== undefined && limit != null)
    findings.push({
      about: ['heat'],
      answer: heat > limit ? 'no' : heat > limit - 10 ? 'care' : 'yes',
      because:
        heat > limit
          ? `It stands ${limit} °C for hours, and ${heat} °C is wanted.`
          : heat > limit - 10
            ? `It stands ${limit} °C for hours: ${heat} °C leaves little.`
            : `It stands ${limit} °C for hours.`,
      school: null,
    });
  for (const rule of COMPATIBILITY_RULES)
    if (applies(rule, question))
      findings.push({
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
      for (let i = findings.length - 1; i >= 0; i--)
        if (findings[i]!.about.length === 1 && findings[i]!.about[0] === thing) findings.splice(i, 1);
      findings.push({
        about: [thing],
        answer: own,
        because: "So says the shop's own list for this kind.",
        school: null,
      });
    } else if (!findings.some(({ about }) => about.includes(thing)))
      findings.push({
        about: [thing],
        answer: 'care',
        because: 'No rule is known for this. Try a corner first.',
        school: null,
      });
  }
  findings.sort((p, q) => GRAVITY[q.answer] - GRAVITY[p.answer]);
  return { answer: findings[0]?.answer ?? 'yes', findings };
}

const GRAVITY: Record<CompatAnswer, number> = { yes: 0, care: 1, no: 2 };

function applies(rule: CompatRule, question: CompatQuestion): boolean {
  if (rule.on && !rule.on.includes(question.face)) return false;
  for (const thing of THINGS) {
    const wanted = rule[thing] as readonly string[] | undefined;
    const asked = question[thing];
    if (wanted && (asked === undefined || !wanted.includes(asked))) return false;
  }
  if (rule.from !== undefined && !(question.heat !== undefined && question.heat >= rule.from)) return false;
  return rule.below === undefined || (question.heat !== undefined && question.heat < rule.below);
}

/**
 * The face that a surface of a group with this finish has.
 * @example faceOf('sheet', 'smooth PEI') // 'smooth-pei'
 */
export function faceOf(group: string, finish: string): Face {
  switch (group) {
    case 'glass':
      return /coat|textur/i.test(finish) ? 'coated-glass' : 'glass';
    case 'laminate':
      return 'fibreglass';
    case 'cover':
      return 'flexible-cover';
    case 'base':
      return 'magnetic-base';
    case 'platform':
      return 'aluminium';
    case 'flex-plate':
      return 'flex-plate';
    case 'film':
      return 'release-film';
    default:
      if (/pattern/i.test(finish)) return 'patterned-film';
      if (/textur/i.test(finish)) return 'textured';
      if (/pei/i.test(finish)) return 'smooth-pei';
      return /steel|bare/i.test(finish) ? 'bare-steel' : 'polymer-film';
  }
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
  return /pla/.test(text) ? 'pla' : undefined;
}
