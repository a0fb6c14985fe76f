import { randomInt, randomLcg } from 'd3-random';
import { seededRandom } from '../level/seededMap.fixture';
import { MaxRectsPacker } from 'maxrects-packer';
import { planBlanks, type Blank } from './planBlanks';
import { countPieces, replayCuts } from './replayCuts.fixture';
import { sheetsNeeded } from './sheetsNeeded';

const square = { width: 305, depth: 305 };
const pane = { width: 133, depth: 159 };

/** Replays each layout's cuts and counts what comes out. */
function replayed(plan: ReturnType<typeof planBlanks>, mayRotate: boolean): number[] {
  return plan.layouts.map(({ cuts, pieces }) => {
    const parts = replayCuts(plan.sheet, cuts, plan.kerf);
    const found = plan.blanks.reduce((sum, blank, i) => {
      const twins = plan.blanks.findIndex(
        ({ width, depth }) =>
          (width === blank.width && depth === blank.depth) ||
          (mayRotate && width === blank.depth && depth === blank.width),
      );
      return twins < i ? sum : sum + countPieces(parts, blank, mayRotate);
    }, 0);
    expect(found).toBeGreaterThanOrEqual(pieces.length);
    // Pieces don't overlap, and keep the kerf between them.
    let nearest = Infinity;
    for (const p of pieces)
      for (const q of pieces)
        if (p !== q)
          nearest = Math.min(
            nearest,
            Math.max(q.x - p.x - p.width, p.x - q.x - q.width, q.y - p.y - p.depth, p.y - q.y - q.depth),
          );
    expect(nearest).toBeGreaterThanOrEqual(plan.kerf - 1e-6);
    return pieces.length;
  });
}

describe('equal pieces', () => {
  test('5¼ × 6¼ in from 12 × 12 in: 3 when they may turn, 2 when not; area says 4.39 (common practice)', () => {
    const plan = planBlanks({ sheet: square, piece: pane, method: 'snap', mayRotate: true, sheets: 6, price: 4 });
    expect(plan).toMatchObject({ perSheet: 3, pieces: 18, proven: true, costPerPiece: 24 / 18 });
    expect(plan.areaAlone).toBeCloseTo(4.4, 1);
    expect(planBlanks({ sheet: square, piece: pane, method: 'snap', mayRotate: false }).perSheet).toBe(2);
    const inches = { width: 12 * 25.4, depth: 12 * 25.4 };
    const exact = planBlanks({
      sheet: inches,
      piece: { width: 133.35, depth: 158.75 },
      method: 'snap',
      mayRotate: true,
    });
    expect(exact.areaAlone).toBeCloseTo(4.39, 2);
    expect(exact.perSheet).toBe(3);
    expect(
      planBlanks({ sheet: inches, piece: { width: 133.35, depth: 133.35 }, method: 'snap', mayRotate: true }).perSheet,
    ).toBe(4);
  });

  test('two of 127 do not come out of 254 with a saw of 1 mm; two of 126.5 do (common practice)', () => {
    const saw = { sheet: { width: 254, depth: 100 }, method: 'saw', mayRotate: false, kerf: 1 } as const;
    expect(planBlanks({ ...saw, piece: { width: 127, depth: 100 } }).perSheet).toBe(1);
    expect(planBlanks({ ...saw, piece: { width: 126.5, depth: 100 } }).perSheet).toBe(2);
    expect(planBlanks({ ...saw, method: 'snap', piece: { width: 127, depth: 100 } }).perSheet).toBe(2);
    // Marked at 128: what is left is 125.
    const marked = planBlanks({
      ...saw,
      piece: [
        { width: 128, depth: 100 },
        { width: 125, depth: 100 },
      ],
    });
    expect(marked.sheets).toBe(1);
    expect(marked.layouts[0]!.cuts[0]!.measure).toBe(128);
  });

  test('kerf lies between pieces only: at the sheet edges nothing is eaten', () => {
    const ask = { method: 'saw', mayRotate: false, kerf: 2 } as const;
    expect(planBlanks({ ...ask, sheet: { width: 32, depth: 10 }, piece: { width: 10, depth: 10 } }).perSheet).toBe(2);
    expect(planBlanks({ ...ask, sheet: { width: 34, depth: 10 }, piece: { width: 10, depth: 10 } }).perSheet).toBe(3);
  });

  test('trim takes a strip off all four edges, and its cuts come first', () => {
    const plan = planBlanks({ sheet: square, piece: pane, method: 'saw', kerf: 1, trim: 5, mayRotate: true });
    expect(plan.layouts[0]!.cuts.slice(0, 4).map(({ along, measure }) => [along, measure])).toEqual([
      ['x', 4],
      ['x', 295],
      ['y', 4],
      ['y', 295],
    ]);
    expect(Math.min(...plan.layouts[0]!.pieces.map(({ x }) => x))).toBe(5);
    expect(replayed(plan, true)).toEqual([plan.perSheet]);
  });

  test('equal to an exhaustive search over all whole-millimetre cuts on 300 seeded small cases', () => {
    const random = randomInt.source(randomLcg(0.42));
    let turnedHelped = 0;
    for (let n = 0; n < 300; n++) {
      const sheet = { width: random(4, 24)(), depth: random(4, 24)() };
      const piece = { width: random(1, 9)(), depth: random(1, 9)() };
      const kerf = random(0, 3)();
      const mayRotate = n % 3 !== 0;
      const wide = piece.width <= sheet.width && piece.depth <= sheet.depth;
      const turned = mayRotate && piece.depth <= sheet.width && piece.width <= sheet.depth;
      if (!wide && !turned) {
        expect(() => planBlanks({ sheet, piece, kerf, method: 'saw', mayRotate })).toThrow('larger than what');
        continue;
      }
      const plan = planBlanks({ sheet, piece, kerf, method: 'saw', mayRotate });
      const searched = exhaustive(sheet, piece, kerf, mayRotate);
      expect({ n, count: plan.perSheet }).toEqual({ n, count: searched });
      expect(plan.proven).toBe(true);
      expect(replayed(plan, mayRotate)).toEqual([searched]);
      if (mayRotate && searched > exhaustive(sheet, piece, kerf, false)) turnedHelped++;
    }
    // The cases are not all trivial.
    expect(turnedHelped).toBeGreaterThan(30);
  });

  test('a large board of small pieces is proven too', () => {
    const plan = planBlanks({
      sheet: { width: 2440, depth: 1220 },
      piece: { width: 133.4, depth: 158.8 },
      kerf: 3.2,
      method: 'saw',
      mayRotate: true,
    });
    expect(plan.proven).toBe(true);
    expect(replayed(plan, true)).toEqual([plan.perSheet]);
  });
});

/** Every cut at every whole millimetre, both ways, remembering each size of part. Independent of normal patterns. */
function exhaustive(
  sheet: { width: number; depth: number },
  piece: { width: number; depth: number },
  kerf: number,
  mayRotate: boolean,
): number {
  const known = new Map<number, number>();
  const most = (w: number, d: number): number => {
    if (w <= 0 || d <= 0) return 0;
    const key = w * 1000 + d;
    const before = known.get(key);
    if (before !== undefined) return before;
    const fits = (w >= piece.width && d >= piece.depth) || (mayRotate && w >= piece.depth && d >= piece.width);
    let best = fits ? 1 : 0;
    for (let a = 1; a < w; a++) best = Math.max(best, most(a, d) + most(w - a - kerf, d));
    for (let b = 1; b < d; b++) best = Math.max(best, most(w, b) + most(w, d - b - kerf));
    known.set(key, best);
    return best;
  };
  return most(sheet.width, sheet.depth);
}

describe('a list of several sizes', () => {
  test('the bound never says more than a packing that is there by construction', () => {
    // A sheet cut up at random into pieces needs one sheet, and so do all its pieces turned.
    const random = randomInt.source(randomLcg(0.7));
    for (let n = 0; n < 100; n++) {
      let parts = [{ width: 100, depth: 80 }];
      for (let cut = 0; cut < 12; cut++) {
        const at = random(0, parts.length)();
        const part = parts[at]!;
        if (part.width < 8 || part.depth < 8) continue;
        const first = random(3, part.width - 3)();
        const halves =
          cut % 2
            ? [
                { ...part, width: first },
                { ...part, width: part.width - first },
              ]
            : [
                { ...part, depth: Math.min(first, part.depth - 3) },
                { ...part, depth: part.depth - Math.min(first, part.depth - 3) },
              ];
        parts = [...parts.slice(0, at), ...halves, ...parts.slice(at + 1)];
      }
      for (const mayRotate of [false, true])
        expect(
          sheetsNeeded(
            { width: 100, depth: 80 },
            parts.map((part) => ({ ...part, mayRotate })),
          ),
        ).toBe(1);
    }
  });

  test('the bound knows more than area: pieces over half a sheet each need one', () => {
    const item = { width: 51, depth: 51, mayRotate: true };
    expect(sheetsNeeded({ width: 100, depth: 100 }, [item, item, item])).toBe(3);
    expect(sheetsNeeded({ width: 100, depth: 100 }, [])).toBe(0);
  });

  test('100 seeded lists: every piece is cut, and how far the sheets are from the bound, beside maxrects-packer', () => {
    const random = randomInt.source(randomLcg(0.11));
    const over: number[] = [];
    let ours = 0;
    let theirs = 0;
    for (let n = 0; n < 100; n++) {
      const sheet = { width: random(250, 700)(), depth: random(250, 700)() };
      const blanks: Blank[] = Array.from({ length: random(2, 7)() }, () => ({
        width: random(40, Math.min(250, sheet.width))(),
        depth: random(40, Math.min(250, sheet.depth))(),
        count: random(1, 9)(),
      }));
      const kerf = n % 2 ? 2 : 0;
      const plan = planBlanks({ sheet, piece: blanks, kerf, method: 'saw', mayRotate: true });
      expect(replayed(plan, true).reduce((p, q) => p + q, 0)).toBe(plan.pieces);
      const bound = 'sheets' in plan.bound ? plan.bound.sheets : NaN;
      expect(plan.sheets).toBeGreaterThanOrEqual(bound);
      over.push(plan.sheets - bound);
      ours += plan.sheets;
      theirs += packed(sheet, blanks, kerf);
    }
    const mean = over.reduce((p, q) => p + q, 0) / over.length;
    // Seen: mean 0.14, worst 1; 314 sheets beside the packer's 342 and a bound of 300. The packer is free of edge-to-edge cuts and still needs no fewer sheets in all.
    expect(Math.max(...over)).toBeLessThanOrEqual(1);
    expect(mean).toBeLessThan(0.3);
    expect(ours).toBeLessThanOrEqual(theirs);
  });

  test('the same seed gives the same plan', () => {
    const ask = {
      sheet: { width: 600, depth: 400 },
      piece: [
        { width: 133, depth: 159, count: 7 },
        { width: 235, depth: 235, count: 2 },
        { width: 90, depth: 60, count: 9 },
      ],
      kerf: 1,
      method: 'saw',
      mayRotate: true,
    } as const;
    expect(planBlanks(ask)).toEqual(planBlanks(ask));
  });
});

/** Sheets that maxrects-packer (any placing, not only edge-to-edge cuts) needs for a list. */
function packed(sheet: { width: number; depth: number }, blanks: readonly Blank[], kerf: number): number {
  const packer = new MaxRectsPacker(sheet.width, sheet.depth, kerf, {
    smart: true,
    pot: false,
    square: false,
    allowRotation: true,
    border: 0,
  });
  packer.addArray(
    blanks.flatMap(({ width, depth, count = 1 }) =>
      Array.from({ length: count }, () => ({ x: 0, y: 0, width, height: depth, rot: false })),
    ) as never[],
  );
  return packer.bins.length;
}

describe('what cannot be', () => {
  const ask = { sheet: square, piece: pane, method: 'snap', mayRotate: true } as const;
  test.each([
    [{ ...ask, sheet: { width: 0, depth: 3 } }, 'sheet larger than 0'],
    [{ ...ask, piece: { width: 400, depth: 20 } }, 'larger than what the sheet gives'],
    [{ ...ask, piece: { width: NaN, depth: 20 } }, 'piece.width is NaN'],
    [{ ...ask, piece: { width: 1, depth: 2 } }, 'at most 2000'],
    [{ ...ask, piece: [] }, 'a piece to cut'],
    [{ ...ask, piece: { ...pane, corners: 80 } }, 'corners smaller'],
    [{ ...ask, piece: { ...pane, count: 1.5 } }, 'whole number of pieces'],
    [{ ...ask, sheets: 0 }, 'whole number of sheets'],
    [{ ...ask, method: 'saw', kerf: -1 }, 'kerf'],
    [{ ...ask, method: 'saw', kerf: 3, trim: 1 }, 'trim'],
    [{ ...ask, price: -1 }, 'price'],
  ] as const)('%#: refused with what is needed', (bad, words) => {
    expect(() => planBlanks(bad)).toThrow(words);
  });
});

test('in sixteenths and thirty-seconds of an inch all of 1,000 exact divisions give all their pieces', () => {
  const random = seededRandom(77);
  const whole = (from: number, to: number) => from + Math.floor(random() * (to - from + 1));
  const wrong: string[] = [];
  for (let n = 0; n < 1_000; n++) {
    const part = random() < 0.5 ? 16 : 32;
    const inch = (parts: number) => (parts / part) * 25.4;
    const [across, deep] = [whole(1, 6), whole(1, 6)];
    const [w, d] = [whole(1.5 * part, 6 * part), whole(1.5 * part, 6 * part)];
    const kerf = random() < 0.5 ? 0 : whole(1, 3);
    const trim = random() < 0.3 ? whole(kerf, kerf + 8) : 0;
    const sheet = {
      width: inch(across * w + (across - 1) * kerf + 2 * trim),
      depth: inch(deep * d + (deep - 1) * kerf + 2 * trim),
    };
    const plan = planBlanks({
      sheet,
      piece: { width: inch(w), depth: inch(d) },
      kerf: inch(kerf),
      trim: inch(trim),
      method: 'saw',
      mayRotate: false,
    });
    if (plan.perSheet !== across * deep || !plan.proven) wrong.push(`${w} × ${d} of ${part}: ${plan.perSheet}`);
  }
  expect(wrong).toEqual([]);
});

test('10 1/8 in square at 5 1/16: four, not one', () => {
  const plan = planBlanks({
    sheet: { width: 10.125 * 25.4, depth: 10.125 * 25.4 },
    piece: { width: 5.0625 * 25.4, depth: 5.0625 * 25.4 },
    method: 'snap',
    mayRotate: true,
  });
  expect(plan).toMatchObject({ perSheet: 4, proven: true });
});
