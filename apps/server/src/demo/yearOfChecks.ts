import type { CheckEnd, CheckStart, RoundWrite, TurnsWrite } from '@even-bed/contract';
import { extentOf, firstLayerAim, lookingDown, type HeightGrid } from '@even-bed/core';
import seedrandom from 'seedrandom';
import { planFor } from '../level/store';
import { HiddenBed } from '../machines/simulated/hiddenBed';
import { printMap } from '../machines/simulated/printMap';
import type { SeededIds } from './seededIds';
import { DAY_MS, type DemoMachine, type MODELS } from './saltmarsh';

export interface DemoCheck {
  checkId: string;
  start: Omit<CheckStart, 'machineId'>;
  rounds: { roundId: string; round: RoundWrite; turns: TurnsWrite | null }[];
  end: CheckEnd;
}

interface Year {
  machine: DemoMachine;
  model: (typeof MODELS)[keyof typeof MODELS];
  begin: number;
  now: number;
  seed: string;
  ids: SeededIds;
}

const MINUTE_MS = 60_000;
const MOST_ROUNDS = 4;
/** Something under the bed was found this long before now; until then it bowed the plate by so much. */
const FOUND_DAYS_AGO = 150;
const BOW = 0.22;
const READINGS_BY_HAND = 3;

/** A year of level checks of one machine, measured on a bed that drifts between them. */
export function yearOfChecks({ machine, model, begin, now, seed, ids }: Year): DemoCheck[] {
  const random = seedrandom(`${seed} year ${machine.name}`);
  const between = (low: number, high: number) => low + (high - low) * random();
  const seenFrom = machine.seenFrom ?? 'above';
  const [width, depth] = model.print;
  const frame = { adjusters: model.adjusters, seenFrom, width, depth };
  const nature = {
    seed: `${seed} past ${machine.name}`,
    tilt: { right: 0, rear: 0 },
    dome: between(-0.03, 0.03),
    twist: between(-0.01, 0.01),
    bump: null,
    noise: 0.005,
    warmUp: 0,
  };
  const straight = new HiddenBed(nature, frame);
  const bowed = new HiddenBed({ ...nature, dome: BOW }, frame);
  const drift = machine.story === 'springs-settle' ? 0.5 : 0.22;
  const setup = {
    adjusters: lookingDown(model.adjusters, seenFrom),
    seenFrom,
    aim: firstLayerAim({ firstLayer: model.firstLayer, compensation: model.compensation }),
    printWidth: width,
    printDepth: depth,
  };

  const checks: DemoCheck[] = [];
  const last = now - machine.lastCheckDaysAgo * DAY_MS - Math.floor(between(2, 7) * 60) * MINUTE_MS;
  const times: number[] = [];
  for (let at = last; at > begin + 2 * DAY_MS; at -= Math.round(between(0.9, 1.5) * (machine.everyDays ?? 14)) * DAY_MS)
    times.unshift(at);
  times.forEach((startedAt, index) => {
    for (const { id } of model.adjusters) {
      const token = `drift ${index}`;
      const turns = between(-drift, drift);
      straight.turn(id, turns, token);
      bowed.turn(id, turns, token);
    }
    const stillBowed = machine.story === 'bowed-from-below' && startedAt < now - FOUND_DAYS_AGO * DAY_MS;
    const bed = stillBowed ? bowed : straight;
    const rounds: DemoCheck['rounds'] = [];
    let at = startedAt;
    let reached = false;
    for (let seq = 1; seq <= (stillBowed ? 3 : MOST_ROUNDS) && !reached; seq++) {
      at += Math.round(between(3, 6)) * MINUTE_MS;
      const round = readRound(bed, { machine, model, seq, takenAt: at });
      const { plan } = planFor(round, setup);
      reached = plan.verdict === 'within' || plan.order.length === 0;
      const roundId = ids.next(at);
      if (reached || seq === (stillBowed ? 3 : MOST_ROUNDS)) {
        rounds.push({ roundId, round, turns: null });
        break;
      }
      at += Math.round(between(2, 5)) * MINUTE_MS;
      const turns = plan.turns
        .filter(({ said }) => said !== 0)
        .map(({ id, said }) => ({ adjusterId: id, turns: said }));
      for (const { adjusterId, turns: amount } of turns) {
        straight.turn(adjusterId, amount, roundId);
        bowed.turn(adjusterId, amount, roundId);
      }
      rounds.push({ roundId, round, turns: { madeAt: at, turns } });
    }
    const firstStraight =
      machine.story === 'bowed-from-below' && !stillBowed && times[index - 1]! < now - FOUND_DAYS_AGO * DAY_MS;
    checks.push({
      checkId: ids.next(startedAt),
      start: { startedAt, setup },
      rounds,
      end: { endedAt: at + 2 * MINUTE_MS, outcome: 'finished', note: noteOf({ stillBowed, firstStraight, random }) },
    });
  });
  return checks;
}

function readRound(
  bed: HiddenBed,
  { machine, model, seq, takenAt }: { machine: DemoMachine; model: Year['model']; seq: number; takenAt: number },
): RoundWrite {
  const [width, depth] = model.print;
  const line = (count: number, length: number) =>
    Array.from({ length: count }, (_, i) => Math.round(15 + ((length - 30) * i) / (count - 1)));
  const count = machine.layout ? 5 : READINGS_BY_HAND;
  const xs = line(count, width);
  const ys = line(count, depth);
  const digits = machine.layout ? 1000 : 100;
  const grid: HeightGrid = {
    xs,
    ys,
    heights: ys.map((y) => xs.map((x) => Math.round(bed.read(x, y) * digits) / digits)),
  };
  const layout = machine.layout ?? 'positions';
  const { x0, y0, x1, y1 } = extentOf(ys.flatMap((y) => xs.map((x) => ({ x, y }))));
  const needsPlace = layout === 'indexed' || layout === 'bare';
  return {
    seq,
    takenAt,
    source: machine.layout ? 'machine' : 'typed',
    raw: printMap(grid, layout).join('\n'),
    reading: needsPlace ? { extent: { x0, y0, x1, y1 }, firstRow: layout === 'indexed' ? 'rear' : 'front' } : {},
  };
}

function noteOf({
  stillBowed,
  firstStraight,
  random,
}: {
  stillBowed: boolean;
  firstStraight: boolean;
  random: () => number;
}): string {
  if (firstStraight)
    return 'A belt clamp pressed on the bed from below. Washer of 1.5 mm under each spring; the dome is gone.';
  if (stillBowed && random() < 0.4) return 'The middle stays high, whatever is turned.';
  return '';
}
