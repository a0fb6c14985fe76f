import { compatibility } from './compatibility';
import { durationWords } from './durationWords';
import { fitCheck } from './fitCheck';
import { inMillimetres, type LengthWords } from './lengthWords';
import { planBlanks } from './planBlanks';
import { soak } from './soak';
import { stackChange } from './stackChange';
import { blanksOf, soakOf, topOf, underbedOf, type ToolId, type ToolInputs } from './toolInputs';
import { topClearance } from './topClearance';
import { underbedClearance } from './underbedClearance';
import { wholeLayers } from './wholeLayers';

/**
 * What a tool answers, in one sentence: for lists of plans and for the book. Computed anew from what was asked.
 * @throws RangeError as the sum of the tool does
 */
export function toolSentence<T extends ToolId>(
  tool: T,
  input: ToolInputs[T],
  say: LengthWords = inMillimetres,
): string {
  return SENTENCES[tool](input, say);
}

const SENTENCES: { [T in ToolId]: (input: ToolInputs[T], say: LengthWords) => string } = {
  stack: (input, say) => {
    const { change, sentence } = stackChange({ ...input, say });
    return `${change > 0 ? '+' : ''}${say(change)}. ${sentence}`;
  },
  underbed: (input, say) => {
    const { compressed, backedOff, verdict, pile } = underbedClearance(underbedOf(input));
    if (verdict === 'clear') return `${say(compressed)} free under the bed with the springs fully compressed.`;
    const cure = pile
      ? `${pile.pieces.length} × ${pile.pieces[0]!.name} under each spring free it.`
      : 'No pile of these washers frees it.';
    return `${say(-compressed)} too tall with the springs fully compressed${backedOff >= 0 ? `, ${say(backedOff)} free as it stands` : ''}. ${cure}`;
  },
  top: (input, say) => {
    const wrong = topClearance({ ...topOf(input), say }).items.filter(({ verdict }) => verdict !== 'clear');
    if (wrong.length === 0) return 'Nothing stands proud of the base or in the way of what passes.';
    return wrong
      .map(({ name, overBase, verdict }) =>
        verdict === 'hit' ? `${name} would be hit.` : `${name} stands ${say(overBase)} proud of the base.`,
      )
      .join(' ');
  },
  size: (input, say) => {
    const { verdict, overhang, beyondPrint, covered } = fitCheck(input);
    switch (verdict) {
      case 'misses-print':
        return `Prints would miss it by ${say(-Math.min(...Object.values(beyondPrint)))}.`;
      case 'covers-keep-out':
        return `It covers ${covered.join(', ')}.`;
      case 'over':
        return `It stands over the plate by up to ${say(Math.max(...Object.values(overhang)))}.`;
      case 'fits':
        return `It fits, ${say(-Math.max(...Object.values(overhang)))} or more from the edge.`;
    }
  },
  blanks: (input) => {
    const { pieces, sheets, perSheet, proven } = planBlanks(blanksOf(input));
    const from = `from ${sheets} ${sheets === 1 ? 'sheet' : 'sheets'}`;
    return perSheet === null
      ? `${pieces} pieces ${from}${proven ? ', no way needs fewer' : ''}.`
      : `${pieces} ${from}, ${perSheet} from each${proven ? ', no edge-to-edge way gives more' : ''}.`;
  },
  soak: (input) => {
    const { seconds, steadyTop, holdsSetpoint } = soak(soakOf(input));
    const top = `${Number(steadyTop.toFixed(1))} °C`;
    if (!holdsSetpoint) return `The heater is too weak for ${input.setpoint} °C: the top ends at ${top}.`;
    return seconds === null
      ? `The top is not hot within a day; it ends at ${top}.`
      : `The top is within ${input.within} °C of its ${top} after ${durationWords(seconds)}.`;
  },
  together: (input) => {
    const { answer, findings } = compatibility(input);
    const word = { yes: 'Yes', care: 'With care', unknown: 'Not known', no: 'No' }[answer];
    return findings.length === 0 ? 'Nothing was asked of it.' : `${word}: ${findings[0]!.because}`;
  },
  spacer: ({ thickness, layer, shape }, say) => {
    const { printed, layers } = wholeLayers(thickness, layer);
    return `${SHAPES[shape]} of ${say(printed)}${layers > 0 ? `, ${layers} layers` : ''}.`;
  },
};

const SHAPES = { pad: 'A pad', 'clip-over': 'A clip-over spacer', 'slide-in': 'A slide-in spacer', gauge: 'A gauge' };
