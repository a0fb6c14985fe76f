import { randomLcg } from 'd3-random';
import { compareCounts } from '../level/compareCounts';
import { compareMethods, heldEqual, type CompareReads, type CompareVerdict, type Held } from '../level/compareMethods';
import { footZero, gapBudget, type FirstGapExpect, type FootZero } from '../level/gapBudget';
import { compatibility, type CompatAnswer } from './compatibility';
import { fitCheck } from './fitCheck';
import { planBlanks } from './planBlanks';
import { soak } from './soak';
import { stackChange, type StackChange, type ZFinding } from './stackChange';
import type { Home } from './stackStep';
import { blanksOf, gapOf, soakOf, topOf, underbedOf, type ToolId, type ToolInputs } from './toolInputs';
import { topClearance } from './topClearance';
import { underbedClearance } from './underbedClearance';
import { wholeLayers } from './wholeLayers';

/** What each tool answers, in the few facts that a plan keeps: its sentence is made from them. Units of the house. */
export interface ToolAnswers {
  stack: {
    result: Pick<StackChange, 'verdict' | 'steps' | 'missing' | 'why' | 'collides' | 'adjusters' | 'change' | 'zero'>;
    by: ZFinding['by'];
    family: 'filament' | 'resin';
    home: Home | null;
  };
  /** Free travel in mm with the springs compressed and as they stand; the pile of washers that frees the bed. */
  underbed: {
    clear: boolean;
    compressed: number;
    backedOff: number;
    pile: { pieces: number; name: string } | null;
  };
  /** What is in the way. */
  top: { items: { name: string; overBase: number; hit: boolean }[] };
  size: { verdict: 'misses-print' | 'over' | 'fits'; by: number } | { verdict: 'covers-keep-out'; covered: string[] };
  blanks: { pieces: number; sheets: number; perSheet: number | null; proven: boolean };
  /** Seconds; null: not within a day. Temperatures in °C. */
  soak: { seconds: number | null; steadyTop: number; holdsSetpoint: boolean; setpoint: number; within: number };
  together: { answer: CompatAnswer; because: string | null };
  spacer: { shape: ToolInputs['spacer']['shape']; printed: number; layers: number };
  /** First gap with its deviation, mm; by how much to jog zero, + up. */
  gap: {
    gap: number;
    sd: number;
    expect: FirstGapExpect;
    jog: number;
    measure: 'gauge' | 'film' | null;
    foot: Pick<FootZero, 'verdict' | 'jog' | 'more'> | null;
  };
  /** Second less first; null: nothing is known of the scatter. */
  /** Difference and interval as they are read: mm, minutes, or shares from −1 to 1. */
  compare: {
    first: string;
    second: string;
    reads: CompareReads;
    /** How often each came well, where that is counted. */
    shares: { first: number; second: number } | null;
    verdict: CompareVerdict;
    difference: number | null;
    interval: { low: number; high: number } | null;
    wouldShow: number | null;
    also: Held[];
  };
}

/**
 * What a tool answers to what it was asked, computed anew.
 * @throws RangeError as the sum of the tool does
 */
export function toolAnswer<T extends ToolId>(tool: T, input: ToolInputs[T]): ToolAnswers[T] {
  return ANSWERS[tool](input);
}

const SEED = 0.5;

const ANSWERS: { [T in ToolId]: (input: ToolInputs[T]) => ToolAnswers[T] } = {
  stack: (input) => {
    const { verdict, steps, missing, why, collides, adjusters, change, zero } = stackChange(input);
    return {
      result: { verdict, steps, missing, why, collides, adjusters, change, zero },
      by: input.finding.by,
      family: input.family,
      home: input.home,
    };
  },
  underbed: (input) => {
    const { compressed, backedOff, verdict, pile } = underbedClearance(underbedOf(input));
    return {
      clear: verdict === 'clear',
      compressed,
      backedOff,
      pile: pile?.pieces[0] ? { pieces: pile.pieces.length, name: pile.pieces[0].name } : null,
    };
  },
  top: (input) => ({
    items: topClearance(topOf(input))
      .items.filter(({ verdict }) => verdict !== 'clear')
      .map(({ name, overBase, verdict }) => ({ name, overBase, hit: verdict === 'hit' })),
  }),
  size: (input) => {
    const { verdict, overhang, beyondPrint, covered } = fitCheck(input);
    switch (verdict) {
      case 'misses-print':
        return { verdict, by: -Math.min(...Object.values(beyondPrint)) };
      case 'covers-keep-out':
        return { verdict, covered };
      case 'over':
        return { verdict, by: Math.max(...Object.values(overhang)) };
      case 'fits':
        return { verdict, by: -Math.max(...Object.values(overhang)) };
    }
  },
  blanks: (input) => {
    const { pieces, sheets, perSheet, proven } = planBlanks(blanksOf(input));
    return { pieces, sheets, perSheet, proven };
  },
  soak: (input) => {
    const { seconds, steadyTop, holdsSetpoint } = soak(soakOf(input));
    return { seconds, steadyTop, holdsSetpoint, setpoint: input.setpoint, within: input.within };
  },
  together: (input) => {
    const { answer, reasons } = compatibility(input);
    return { answer, because: reasons[0]?.because ?? null };
  },
  spacer: ({ thickness, layer, shape }) => {
    const { printed, layers } = wholeLayers(thickness, layer);
    return { shape, printed, layers };
  },
  gap: (input) => {
    const { gap, expect, jog, measure } = gapBudget(gapOf(input));
    const [flat, control] = [input.flat, input.control].map((list) => list.map(({ height }) => height));
    const foot = flat!.length > 0 && control!.length > 0 ? footZero({ flat: flat!, control: control! }) : null;
    return {
      gap: gap.value,
      sd: gap.sd,
      expect,
      jog,
      measure,
      foot: foot && { verdict: foot.verdict, jog: foot.jog, more: foot.more },
    };
  },
  compare: ({ first, second, about, differs, reads, a, b, heldA, heldB, each, looks, matters }) => {
    const rule = { each, looks };
    const names = { first, second, reads, also: heldEqual(differs, about).also };
    if (reads === 'held') {
      const { shares, apart, verdict, wouldShow } = compareCounts({ a: heldA, b: heldB, rule, matters: matters / 100 });
      const { difference = null, interval = null } = apart ?? {};
      return { ...names, shares, verdict, difference, interval, wouldShow };
    }
    const [one, other] = [a, b].map((list) => list.map(({ reading }) => reading));
    // Always the same ways are drawn: the same question has the same answer.
    const { welch, verdict, wouldShow } = compareMethods({ a: one!, b: other!, rule, matters }, randomLcg(SEED));
    const { difference = null, interval = null } = welch ?? {};
    return { ...names, shares: null, verdict, difference, interval, wouldShow };
  },
};
