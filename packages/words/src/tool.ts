import type { ToolAnswers, ToolId, TopCure } from '@even-bed/core';
import type { CompareReads, Held } from '@even-bed/core/level/compareMethods';
import { figuresFor, type Figures, type Reader } from './figures';
import { timeTaken } from './span';
import { stackSentence } from './stack';

/** What a tool answered, in one sentence: for lists of plans and for the book, in the reader's units of today. */
export function toolSentence<T extends ToolId>(tool: T, answer: ToolAnswers[T], reader: Reader): string {
  return SENTENCES[tool](answer, figuresFor(reader), reader);
}

const SENTENCES: { [T in ToolId]: (answer: ToolAnswers[T], figures: Figures, reader: Reader) => string } = {
  stack: (facts, { size }, reader) => {
    const { change } = facts.result;
    return `${change > 0 ? '+' : ''}${size(change, 3)}. ${stackSentence(facts, reader)}`;
  },
  underbed: ({ clear, compressed, backedOff, pile }, { size }) => {
    if (clear) return `${size(compressed, 3)} free under the bed with the springs fully compressed.`;
    const cure = pile
      ? `${pile.pieces} × ${pile.name} under each spring free it.`
      : 'No pile of these washers frees it.';
    return `${size(-compressed, 3)} too tall with the springs fully compressed${backedOff >= 0 ? `, ${size(backedOff, 3)} free as it stands` : ''}. ${cure}`;
  },
  top: ({ items }, { size }) =>
    items.length === 0
      ? 'Nothing stands proud of the base or in the way of what passes.'
      : items
          .map(({ name, overBase, hit }) =>
            hit ? `${name} would be hit.` : `${name} stands ${size(overBase, 3)} proud of the base.`,
          )
          .join(' '),
  size: (answer, { size }) => {
    switch (answer.verdict) {
      case 'misses-print':
        return `Prints would miss it by ${size(answer.by, 3)}.`;
      case 'covers-keep-out':
        return `It covers ${answer.covered.join(', ')}.`;
      case 'over':
        return `It stands over the plate by up to ${size(answer.by, 3)}.`;
      case 'fits':
        return `It fits, ${size(answer.by, 3)} or more from the edge.`;
    }
  },
  blanks: ({ pieces, sheets, perSheet, proven }) => {
    const from = `from ${sheets} ${sheets === 1 ? 'sheet' : 'sheets'}`;
    return perSheet === null
      ? `${pieces} pieces ${from}${proven ? ', no way needs fewer' : ''}.`
      : `${pieces} ${from}, ${perSheet} from each${proven ? ', no edge-to-edge way gives more' : ''}.`;
  },
  soak: ({ seconds, steadyTop, holdsSetpoint, setpoint, within }, { temperature, difference }) => {
    const top = temperature(steadyTop);
    if (!holdsSetpoint) return `The heater is too weak for ${temperature(setpoint)}: the top ends at ${top}.`;
    return seconds === null
      ? `The top is not hot within a day; it ends at ${top}.`
      : `The top is within ${difference(within)} of its ${top} after ${timeTaken(seconds)}.`;
  },
  together: ({ answer, because }) => {
    const word = { yes: 'Yes', care: 'With care', unknown: 'Not known', no: 'No' }[answer];
    return because === null ? 'Nothing was asked of it.' : `${word}: ${because}`;
  },
  spacer: ({ shape, printed, layers }, { size }) =>
    `${SHAPES[shape]} of ${size(printed, 3)}${layers > 0 ? `, ${layers} layers` : ''}.`,
  gap: ({ gap, sd, expect, jog, foot }, { length }, reader) =>
    `First gap ${length(gap)}, give or take ${length(sd)}: ${EXPECTS[expect]}. ${foot ? footWords(foot, reader) : jogWords(jog, reader)}`,
  compare: (answer, _, reader) => {
    const also = alsoWords(answer.also);
    return `${compareWords(answer, reader)}${also ? ` ${also}` : ''}`;
  },
};

const EXPECTS: Record<ToolAnswers['gap']['expect'], string> = {
  presses: 'the platform would press the film: raise zero first',
  foot: 'a foot: the first layers are squeezed',
  even: 'even first layers',
  loose: 'loose first layers: they may not hold',
  unsure: 'can’t be told by what is known',
};
const FEET: Record<NonNullable<ToolAnswers['gap']['foot']>['verdict'], string> = {
  raise: 'By the pieces: zero up',
  lower: 'By the pieces: zero down',
  stays: 'By the pieces zero stays.',
  unsure: 'The pieces can’t tell yet',
};

/** What the first layers do by the gap that is foretold. */
export const expectWords = (expect: ToolAnswers['gap']['expect']): string => EXPECTS[expect];

/** What the pieces printed flat and on supports say of zero. */
export function footWords(foot: NonNullable<ToolAnswers['gap']['foot']>, reader: Reader): string {
  const { length } = figuresFor(reader);
  if (foot.verdict === 'stays') return FEET.stays;
  if (foot.verdict === 'unsure') return `${FEET.unsure}: ${foot.more} more of each.`;
  return foot.jog === 0 ? 'By the pieces zero stays.' : `${FEET[foot.verdict]} by ${length(Math.abs(foot.jog))}.`;
}

/** By how much zero is jogged, in words. */
export function jogWords(jog: number, reader: Reader): string {
  const { length } = figuresFor(reader);
  if (jog === 0) return 'Leave zero where it is.';
  return jog > 0 ? `Zero up by ${length(jog)}.` : `Zero down by ${length(-jog)}, no more.`;
}

/** What is compared too, since it was not the same in both. */
export function alsoWords(also: readonly Held[]): string | null {
  if (also.length === 0) return null;
  const names = also.map((one) => HELD_WORDS[one]);
  return `Not the same in both: ${names.join(', ')}. This compares ${also.length === 1 ? 'that' : 'those'} too.`;
}
const HELD_WORDS: Record<Held, string> = {
  machine: 'two machines',
  surface: 'two surfaces',
  gauge: 'two gauges',
  hands: 'two pairs of hands',
  heat: 'warm and cold',
  material: 'two materials',
};
/** What can differ, as a thing. */
export const heldWords = (held: Held): string => HELD_WORDS[held];

const upper = (text: string) => `${text[0]!.toUpperCase()}${text.slice(1)}`;
const percent = (share: number) => `${Math.round(share * 100)} %`;

/** What a comparison says by its rule. */
export function compareWords(
  { first, second, reads, shares, verdict, difference, wouldShow }: ToolAnswers['compare'],
  reader: Reader,
): string {
  const more = wouldShow === null ? '' : ` About ${wouldShow} of each would show a difference that matters.`;
  switch (verdict.says) {
    case 'not-yet':
      return `No look yet: ${verdict.more} more of each.`;
    case 'different': {
      const by = Math.abs(difference ?? 0);
      const than = (difference ?? 0) >= 0 ? 'more' : 'less';
      if (shares)
        return `${upper(second)} held in ${percent(shares.second)}, ${first} in ${percent(shares.first)}: more than chance would. It ends here.`;
      if (reads === 'time')
        return `With ${second} it takes ${apartWords(by, reads, reader)} ${than} than with ${first}. It ends here.`;
      return `${upper(second)} is ${apartWords(by, reads, reader)} ${than} than ${first}. It ends here.`;
    }
    case 'go-on':
      return `Not settled: ${verdict.more} more of each, then look again.`;
    case 'too-small-to-matter':
      return `No difference that matters between ${first} and ${second}. It ends here.`;
    case 'not-shown':
      return `It ends here without showing a difference, and without ruling one out.${more}`;
  }
}

/** A difference as it is read: a length, minutes, or points of a hundred. */
export function apartWords(difference: number, reads: CompareReads, reader: Reader): string {
  const { size, short } = figuresFor(reader);
  if (reads === 'time') return `${short(difference, 1)} min`;
  if (reads === 'held') return `${short(difference * 100, 0)} points`;
  // Answers kept before anything else was read are lengths too.
  return size(difference, 3);
}

const SHAPES = { pad: 'A pad', 'clip-over': 'A clip-over spacer', 'slide-in': 'A slide-in spacer', gauge: 'A gauge' };

/** What takes a thing that stands up from the plate out of the way. */
export function topCureWords(cure: TopCure, reader: Reader): string {
  const { size } = figuresFor(reader);
  const say = (mm: number) => size(mm, 2);
  switch (cure.do) {
    case 'countersink':
      return `Countersink 90°, ${say(cure.diameter)} wide and ${say(cure.depth)} deep, a little at a time until flush${cure.remains === null ? '' : `; only ${say(cure.remains)} of plate is left under it`}.`;
    case 'lower-head':
      return 'A lower head, if the plate is too thin to sink it.';
    case 'lower-or-shorter':
      return 'A lower head, or a screw that ends below the base: the plate is too thin to sink it, or not told.';
    case 'notch':
      return `Notch the base and the sheet round it, grind the clip down${cure.by > 0 ? ` by ${say(cure.by)}` : ''}, or take it off.`;
    case 'lay-beside':
      return 'Rest the base beside it, or lay a ruler across, before the liner comes off.';
    case 'cut-corner':
      return `Cut the sheet's corner free of it, or bend or file it down${cure.by > 0 ? ` by ${say(cure.by)}` : ''}.`;
  }
}
