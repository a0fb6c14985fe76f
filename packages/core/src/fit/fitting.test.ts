import { COUNTERSUNK_HEADS, countersink } from './countersink';
import { fitCheck, skewOver } from './fitCheck';
import { layerMass } from './layerMass';
import { padsFor } from './padsFor';
import { stackChange } from './stackChange';
import { topClearance } from './topClearance';
import { underbedClearance } from './underbedClearance';
import { washersFor } from './washers';

/** A head that comes down to its home at the surface. */
const UP = { moves: 'head', home: 'surface' } as const;

describe('stackChange beside the sum', () => {
  const codes = (input: Parameters<typeof stackChange>[0]) => stackChange(input).cautions.map(({ code }) => code);
  const glass = { name: 'glass', thickness: 3.175, limit: 150, mass: 168 };
  const base = { name: 'base', thickness: 1.2, limit: 80, mass: 180 };
  const sheet = { name: 'sheet', thickness: 0.5, limit: 110, mass: 210 };
  const plate = { name: 'plate', thickness: 3 };

  test('the weakest layer sets the temperature, and layers that stay need no weight', () => {
    const result = stackChange({
      before: [plate, glass],
      after: [plate, base, sheet],
      finding: { by: 'spacer' },
      ...UP,
    });
    expect(result.limit).toEqual({ temperature: 80, layer: 'base' });
    expect(result.addedMass).toBe(180 + 210 - 168);
    expect(
      stackChange({ before: [plate], after: [{ ...plate, thickness: 4 }], finding: { by: 'spacer' }, ...UP }).addedMass,
    ).toBeNull();
  });

  test('build height goes down by what the surface comes up', () => {
    const ask = { before: [glass], after: [base, sheet], finding: { by: 'spacer' }, ...UP, buildHeight: 250 } as const;
    expect(stackChange(ask).buildHeight).toBe(251.475);
  });

  test('a home that would be too low is said to be beyond any software zero, and only then', () => {
    const up = { before: [], after: [glass] };
    expect(codes({ ...up, finding: { by: 'spacer' }, ...UP })).toContain('zero-cannot-rescue');
    expect(codes({ ...up, finding: { by: 'fixed' }, ...UP, slack: 4 })).not.toContain('zero-cannot-rescue');
    expect(codes({ before: [glass], after: [sheet], finding: { by: 'spacer' }, ...UP })).not.toContain(
      'zero-cannot-rescue',
    );
    expect(codes({ ...up, finding: { by: 'contact-probe' } })).not.toContain('zero-cannot-rescue');
  });

  test('an inductive probe sees metal through the new top', () => {
    const metal = { ...plate, metal: 'steel' as const };
    const finding = { by: 'inductive-probe', range: 5, above: 3 } as const;
    expect(codes({ before: [metal], after: [metal, glass], finding })).toEqual([
      'metal-through-top',
      'probe-reach',
      'home-again',
    ]);
  });

  test('a resin machine is rehearsed with the vat empty; homing again stands everywhere', () => {
    const finding = { by: 'flag', part: 'flag', rides: 'moving' } as const;
    const found = codes({ before: [], after: [base], finding, home: 'surface', family: 'resin' });
    expect(found).toEqual(expect.arrayContaining(['vat-empty', 'zero-again', 'home-again']));
    expect(codes({ before: [], after: [base], finding })).not.toContain('vat-empty');
    expect(codes({ before: [base], after: [base], finding })).toEqual([]);
  });

  test('labels are not calipers, weight on a moving bed is said, short adjusters too', () => {
    expect(codes({ before: [], after: [{ ...glass, measured: false }], finding: { by: 'contact-probe' } })).toContain(
      'nominal',
    );
    expect(codes({ before: [], after: [{ ...glass, mass: 700 }], finding: { by: 'contact-probe' } })).toContain(
      'heavy',
    );
    const short = stackChange({
      before: [],
      after: [glass],
      finding: { by: 'fixed' },
      ...UP,
      adjusters: { up: 1, down: 1, pitch: 0.5, clockwise: 'lowers' },
    });
    expect(short.cautions.map(({ code }) => code)).toContain('adjusters-short');
    expect(short.adjusters).toMatchObject({ enough: false, left: { up: 4.175, down: -2.175 } });
  });

  test('impossible layers are refused by name', () => {
    const bad = { before: [], after: [{ name: 'base', thickness: NaN }], finding: { by: 'fixed' } } as const;
    expect(() => stackChange(bad)).toThrow('after.0.thickness is NaN');
    expect(() => stackChange({ before: [], after: [glass], finding: { by: 'spacer' }, ...UP, spacerLayer: 0 })).toThrow(
      'spacer layer above 0',
    );
  });
});

test('mass of a pane and of a stone, as the trade weighs them (common practice: about 0.17 and 0.7 kg)', () => {
  const pane = { width: 133, depth: 159, density: 2500 };
  expect(layerMass({ ...pane, thickness: 3.175 })).toBeCloseTo(168, 0);
  expect(layerMass({ ...pane, thickness: 12.7, density: 2630 })).toBeGreaterThan(680);
  expect(layerMass({ ...pane, thickness: 12.7, density: 2630 })).toBeLessThan(720);
});

describe('countersink', () => {
  test.each(COUNTERSUNK_HEADS)('$thread: the cone of ISO 10642 is as high as the head stands in its table', (screw) => {
    const cut = countersink({ thread: screw.thread, hole: screw.shank, plate: 10 });
    expect(cut.depth).toBeCloseTo(screw.height, 9);
    expect(cut.diameter).toBe(screw.head);
  });

  test('a wider hole needs less depth; below the top needs more', () => {
    expect(countersink({ thread: 'M3', hole: 3.4, plate: 4 }).depth).toBeCloseTo(1.66, 9);
    expect(countersink({ thread: 'M3', hole: 3, plate: 4, below: 0.2 }).depth).toBeCloseTo(2.06, 9);
  });

  test('a thin plate is said to be thin, a thinner one to be broken through', () => {
    expect(countersink({ thread: 'M3', hole: 3, plate: 3 }).verdict).toBe('good');
    expect(countersink({ thread: 'M3', hole: 3, plate: 2 }).verdict).toBe('thin');
    expect(countersink({ thread: 'M3', hole: 3, plate: 1.5 }).verdict).toBe('through');
    expect(() => countersink({ thread: 'M7', hole: 3, plate: 3 })).toThrow('M7');
    expect(() => countersink({ thread: 'M3', hole: 8, plate: 3 })).toThrow('narrower');
  });
});

describe('topClearance', () => {
  const clip = { name: 'clip', kind: 'clip', height: 2.5, beside: false } as const;

  test('a clip of 2.5 under a base of 1.2 lifts the sheet by 1.3 and is hit by the nozzle over a 0.5 sheet', () => {
    const { clear, items } = topClearance({ items: [clip], base: 1.2, sheet: 0.5 });
    expect(clear).toBe(false);
    expect(items[0]).toMatchObject({ overBase: 1.3, overSheet: 0.8, verdict: 'hit', hitBy: ['nozzle'] });
    expect(items[0]!.cures).toEqual([{ do: 'notch', by: 1.3 }, { do: 'lay-beside' }]);
  });

  test('beside the base it only matters what passes over it', () => {
    const ask = { items: [{ ...clip, beside: true }], base: 1.2, sheet: 0.5, travel: 1 };
    expect(topClearance(ask).items[0]!.verdict).toBe('clear');
    expect(topClearance({ ...ask, travel: 0.7 }).items[0]!.verdict).toBe('hit');
    expect(
      topClearance({ ...ask, items: [{ ...clip, height: 6, beside: true }], passes: [{ name: 'duct', above: 3 }] })
        .items[0]!.hitBy,
    ).toEqual(['nozzle', 'duct']);
  });

  test('a proud screw is sunk when the plate is thick enough, and its washers go back', () => {
    const screw = { name: 'screw', kind: 'screw', height: 1.65, beside: false, thread: 'M3', hole: 3.4 } as const;
    const { items, insulate } = topClearance({ items: [screw], base: 1.2, sheet: 0.5, plate: 4 });
    expect(items[0]).toMatchObject({ verdict: 'lifts-sheet', countersink: { depth: 1.66, verdict: 'good' } });
    expect(items[0]!.cures[0]).toMatchObject({ do: 'countersink', depth: 1.66, remains: null });
    expect(insulate).toBe(true);
    expect(topClearance({ items: [screw], base: 1.2, sheet: 0.5, plate: 1.5 }).items[0]!.cures).toEqual([
      { do: 'lower-or-shorter' },
    ]);
  });

  test('below the base nothing is wrong', () => {
    expect(topClearance({ items: [{ ...clip, height: 1.2 }], base: 1.2, sheet: 0.5 }).clear).toBe(true);
  });
});

describe('fitCheck', () => {
  const plate = { width: 235, depth: 235 };
  const print = { x: 7.5, y: 7.5, width: 220, depth: 220 };

  test('250 on 235 leaves 15 to share; margin is (plate − print area)/2 (common practice)', () => {
    const fit = fitCheck({ plate, print, piece: { width: 250, depth: 250 } });
    expect(fit.overhang).toEqual({ left: 7.5, right: 7.5, front: 7.5, rear: 7.5 });
    expect(fit.margin.left).toBe((235 - 220) / 2);
    expect(fit.verdict).toBe('over');
    expect(fit.skewUntilOver).toBeNull();
  });

  test('0 to spare on one axis allows no skew at all; a little allows a little', () => {
    expect(fitCheck({ plate, print, piece: { width: 250, depth: 235 } }).skewUntilBare).toBeCloseTo(0, 4);
    // 1 mm a side on a square of 235: 118.5 = 117.5 (cos a + sin a), so a = 0.487° (solved by hand from 2·sin·cos).
    const angle = (Math.asin((118.5 / 117.5) ** 2 - 1) / 2) * (180 / Math.PI);
    expect(fitCheck({ plate, print, piece: { width: 237, depth: 237 } }).skewUntilBare).toBeCloseTo(angle, 4);
    expect(fitCheck({ plate, print, piece: { width: 233, depth: 233 } }).skewUntilOver).toBeCloseTo(
      (Math.asin((117.5 / 116.5) ** 2 - 1) / 2) * (180 / Math.PI),
      4,
    );
  });

  test('0.25° over 235 mm is 1.0 mm, 0.5° is 2.1 (common practice)', () => {
    expect(skewOver(235, 0.25)).toBeCloseTo(1.03, 2);
    expect(skewOver(235, 0.5)).toBeCloseTo(2.05, 2);
  });

  test('a piece smaller than the print area misses prints on the side where it is short', () => {
    const fit = fitCheck({ plate, print, piece: { width: 235, depth: 225, x: 0, y: 0 } });
    expect(fit).toMatchObject({
      verdict: 'misses-print',
      beyondPrint: { rear: -2.5, front: 7.5 },
      skewUntilPrint: null,
    });
  });

  test('adjusters under the piece are named, unless a notch frees them', () => {
    const keepOuts = [{ name: 'front-left knob', x: 0, y: 0, width: 12, depth: 12 }];
    const ask = { plate, print: { ...print, x: 13, width: 200 }, piece: { width: 235, depth: 235 }, keepOuts };
    expect(fitCheck(ask)).toMatchObject({ covered: ['front-left knob'], verdict: 'covers-keep-out' });
    expect(fitCheck({ ...ask, notches: [{ x: 0, y: 0, width: 15, depth: 15 }] })).toMatchObject({
      covered: [],
      verdict: 'fits',
    });
    expect(fitCheck({ ...ask, notches: [{ x: 0, y: 0, width: 10, depth: 15 }] }).covered).toHaveLength(1);
  });

  test('a long narrow piece is judged by the first angle at which a corner is out', () => {
    const fit = fitCheck({
      plate: { width: 200, depth: 202 },
      print: { x: 50, y: 50, width: 10, depth: 10 },
      piece: { width: 40, depth: 200 },
    });
    expect(fit.skewUntilOver).toBeGreaterThan(2.5);
    expect(fit.skewUntilOver).toBeLessThan(3.5);
  });

  test('sizes have to be sizes', () => {
    expect(() => fitCheck({ plate, print, piece: { width: 0, depth: 3 } })).toThrow('piece');
  });
});

describe('padsFor', () => {
  test('two 400 × 200 pads for 310 × 320: two strips of 310 × 160 with one seam (common practice)', () => {
    expect(padsFor({ plate: { width: 310, depth: 320 }, pad: { width: 400, depth: 200 } })).toMatchObject({
      pads: 2,
      width: 310,
      depth: 160,
      seams: 1,
      areaOfOne: 80_000 / 99_200,
    });
  });

  test('one is enough where it covers, also turned', () => {
    expect(padsFor({ plate: { width: 190, depth: 390 }, pad: { width: 400, depth: 200 } })).toMatchObject({
      pads: 1,
      seams: 0,
    });
    expect(() => padsFor({ plate: { width: 190, depth: 0 }, pad: { width: 400, depth: 200 } })).toThrow('plate');
  });
});

test('washers go by their thread, and unknown threads are refused', () => {
  expect(washersFor('M3')).toEqual([{ name: 'ISO 7089 M3', thickness: 0.5 }]);
  expect(() => washersFor('M7')).toThrow('M7');
  expect(() => underbedClearance({ parts: [{ name: 'tie', height: -1 }], springCompressed: 9 })).toThrow('tie has -1');
  expect(() => underbedClearance({ parts: [], springCompressed: 9, pitch: 0 })).toThrow('pitch');
  expect(() => underbedClearance({ parts: [], springCompressed: NaN })).toThrow('springCompressed');
});
