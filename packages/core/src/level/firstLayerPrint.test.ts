import { stlOf } from '../fit/solidFile';
import { firstLayerPrint, padSolid, type FirstLayerPrintAsk } from './firstLayerPrint';
import { proved, trials } from '../simulated/prove.fixture';
import { PAD_EDGE } from './padPlaces';
import { PRINT_HEAT, PRINT_MATERIALS } from './printHeat';
import { layerPlaces } from './compareFirstLayer';
import { seededMap, seededRandom } from './seededMap.fixture';

const ASK: FirstLayerPrintAsk = {
  print: { x: 5, y: 5, width: 220, depth: 220 },
  height: 250,
  places: [
    { x: 30, y: 30 },
    { x: 115, y: 115 },
    { x: 224, y: 224 },
  ],
  pad: 20,
  layer: 0.25,
  line: 0.5,
  filament: 1.75,
  nozzle: 210,
  bed: 60,
  hottest: 100,
  offCommand: null,
  compensation: 'off',
};

/** A machine that does what the file says, line by line, and writes down every bead: a reader of its own. */
function run(gcode: string) {
  const state = {
    x: NaN,
    y: NaN,
    z: NaN,
    nozzle: 0,
    nozzleReached: 0,
    bedReached: 0,
    bed: 0,
    homed: false,
    absolute: false,
    relativeE: false,
    millimetres: false,
  };
  const beads: {
    x0: number;
    y0: number;
    x1: number;
    y1: number;
    z: number;
    fed: number;
    nozzle: number;
    bed: number;
  }[] = [];
  const travels: { z: number; length: number }[] = [];
  let fedBack = 0;
  for (const raw of gcode.split('\n')) {
    const text = raw.replace(/;.*/, '').trim();
    if (text === '') continue;
    const [code, ...words] = text.split(/\s+/);
    const word = (letter: string) => {
      const found = words.find((one) => one.startsWith(letter));
      return found === undefined ? undefined : Number(found.slice(1));
    };
    switch (code) {
      case 'G21':
        state.millimetres = true;
        break;
      case 'G90':
        state.absolute = true;
        break;
      case 'M83':
        state.relativeE = true;
        break;
      case 'G28':
        state.homed = true;
        Object.assign(state, { x: 0, y: 0, z: 0 });
        break;
      case 'M104':
      case 'M109':
        state.nozzle = word('S')!;
        if (code === 'M109') state.nozzleReached = state.nozzle;
        break;
      case 'M140':
      case 'M190':
        state.bed = word('S')!;
        if (code === 'M190') state.bedReached = state.bed;
        break;
      case 'G0':
      case 'G1': {
        expect(state.homed && state.absolute && state.relativeE && state.millimetres).toBe(true);
        const [x, y, z] = [word('X') ?? state.x, word('Y') ?? state.y, word('Z') ?? state.z];
        const fed = word('E') ?? 0;
        const length = Math.hypot(x - state.x, y - state.y);
        if (fed > 0 && length > 0)
          beads.push({
            x0: state.x,
            y0: state.y,
            x1: x,
            y1: y,
            z,
            fed,
            nozzle: state.nozzleReached,
            bed: state.bedReached,
          });
        else if (length > 0) travels.push({ z: Math.min(state.z, z), length });
        else fedBack += fed;
        Object.assign(state, { x, y, z });
        break;
      }
      case 'G92':
      case 'M84':
        break;
      // A stop until somebody goes on.
      case 'M0':
        break;
      default:
        throw new Error(`a code that no machine here knows: ${text}`);
    }
  }
  return { state, beads, travels, fedBack };
}

test('read back line by line: every bead on the plate, one layer high, warm, as much plastic as it needs', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const random = seededRandom(seed);
    const print = { x: 10 * random(), y: 10 * random(), width: 120 + 300 * random(), depth: 120 + 300 * random() };
    const material = PRINT_MATERIALS[seed % PRINT_MATERIALS.length]!;
    const heat = PRINT_HEAT[material];
    const layer = 0.1 + 0.25 * random();
    const ask = {
      ...ASK,
      print,
      layer,
      line: 0.35 + 0.4 * random(),
      ...heat,
      hottest: 120,
      places: layerPlaces(seededMap(seed), 9),
    };
    const made = firstLayerPrint(ask);
    const { beads, travels, state, fedBack } = run(made.gcode);
    const area = Math.PI * (ask.filament / 2) ** 2;
    expect(beads.length).toBeGreaterThan(50);
    const bad = beads.filter(({ x0, y0, x1, y1, z, fed, nozzle, bed }) => {
      const half = ask.line / 2 - 1e-3;
      const onPlate =
        Math.min(x0, x1) - half >= print.x &&
        Math.min(y0, y1) - half >= print.y &&
        Math.max(x0, x1) + half <= print.x + print.width &&
        Math.max(y0, y1) + half <= print.y + print.depth;
      const filled = Math.abs((fed * area) / Math.hypot(x1 - x0, y1 - y0) / (ask.line * layer) - 1) < 0.02;
      return !(onPlate && filled && Math.abs(z - layer) < 6e-4 && nozzle === heat.nozzle && bed === heat.bed);
    });
    expect(bad).toEqual([]);
    // Not through what it has laid: travels are above it, and what was drawn back is given back but for the last.
    expect(travels.filter(({ z, length }) => length > 1 && !(z > layer + 1))).toEqual([]);
    expect(fedBack).toBeCloseTo(-1, 6);
    expect(state).toMatchObject({ nozzle: 0, bed: 0 });
    expect(state.z).toBeGreaterThan(20);
    // Every pad holds its beads, and no two pads meet.
    for (const [i, pad] of made.pads.entries()) {
      expect(beads.some((bead) => bead.x0 > pad.x0 && bead.x0 < pad.x1 && bead.y0 > pad.y0 && bead.y0 < pad.y1)).toBe(
        true,
      );
      for (const other of made.pads.slice(i + 1))
        expect(pad.x1 < other.x0 || other.x1 < pad.x0 || pad.y1 < other.y0 || other.y1 < pad.y0).toBe(true);
    }
  }
});

test('on random plates, pads and lines: every move inside, no pad on the priming line, or refused', () => {
  const plates = trials(2000, 60);
  let [made, refused] = [0, 0];
  for (let seed = 1; seed <= plates; seed++) {
    const random = seededRandom(seed);
    const between = (low: number, high: number) => Math.round(10 * (low + (high - low) * random())) / 10;
    const print = { x: between(-20, 20), y: between(-20, 20), width: between(70, 400), depth: between(40, 400) };
    const ask: FirstLayerPrintAsk = {
      ...ASK,
      print,
      pad: between(8, 60),
      line: between(0.3, 1),
      places: Array.from({ length: 1 + Math.floor(12 * random()) }, () => ({
        x: print.x + print.width * (1.4 * random() - 0.2),
        y: print.y + print.depth * (1.4 * random() - 0.2),
      })),
    };
    let found;
    try {
      found = firstLayerPrint(ask);
    } catch (error) {
      // Only a pad that finds no room is refused.
      expect((error as Error).message).toMatch(/a pad that finds room/);
      expect(ask.pad).toBeGreaterThan(Math.min(print.width - 10, print.depth - 14 - ask.line) - 1);
      refused++;
      continue;
    }
    made++;
    expect(found.pads.length + found.left.length).toBe(ask.places.length);
    const prime = print.y + PAD_EDGE + ask.line / 2;
    for (const { x0, y0, x1, y1 } of found.pads) {
      expect(x0).toBeGreaterThanOrEqual(print.x + PAD_EDGE - 1e-9);
      expect(x1).toBeLessThanOrEqual(print.x + print.width - PAD_EDGE + 1e-9);
      expect(y1).toBeLessThanOrEqual(print.y + print.depth - PAD_EDGE + 1e-9);
      expect(y0).toBeGreaterThan(prime + 2);
    }
    for (const line of found.gcode.split('\n').filter((one) => /^G[01] /.test(one))) {
      const word = (letter: string) => Number(new RegExp(`${letter}(-?[\\d.]+)`).exec(line)?.[1] ?? NaN);
      const [x, y, z] = [word('X'), word('Y'), word('Z')];
      if (!Number.isNaN(x)) expect(x >= print.x && x <= print.x + print.width).toBe(true);
      if (!Number.isNaN(y)) expect(y >= print.y && y <= print.y + print.depth).toBe(true);
      if (!Number.isNaN(z)) expect(z > 0 && z <= ask.height).toBe(true);
    }
  }
  proved(
    'test print',
    'random plates, pads and lines',
    `${made} read back, every move inside; ${refused} refused, their pad finds no room`,
  );
  expect(made).toBeGreaterThan(plates / 2);
  expect(refused).toBeGreaterThan(plates / 100);
});

test('a pad at the edge moves inward and says so; one over another is left out', () => {
  const { pads, left } = firstLayerPrint({ ...ASK, places: [...ASK.places, { x: 116, y: 116 }] });
  expect(pads.map(({ moved }) => moved)).toEqual([false, false, true]);
  expect(left).toEqual([{ x: 116, y: 116 }]);
});

test('compensation off: by the machine’s own command after homing, else by hand', () => {
  expect(firstLayerPrint(ASK).gcode).toMatch(/G28\nG0 Z10 F600\n; switch compensation off[^\n]*\nM0\n/);
  expect(firstLayerPrint({ ...ASK, offCommand: 'M999 S0' }).gcode).toMatch(/G28\nG0 Z10 F600\nM999 S0\n/);
  expect(firstLayerPrint({ ...ASK, compensation: 'on', offCommand: 'M999 S0' }).gcode).not.toContain('M999');
});

test.each<[string, Partial<FirstLayerPrintAsk>]>([
  ['nozzle', { nozzle: 400 }],
  ['cold nozzle', { nozzle: 100 }],
  ['bed', { bed: 110 }],
  ['layer', { layer: 0.01 }],
  ['line thinner than its layer', { line: 0.2, layer: 0.3 }],
  ['no places', { places: [] }],
  ['NaN', { bed: NaN }],
  ['small plate', { print: { x: 0, y: 0, width: 30, depth: 30 } }],
  ['two lines in a command', { offCommand: 'M1\nM104 S300' }],
  ['a remark in a command', { offCommand: 'M999 ; x' }],
  ...[
    'M104 S400',
    'm104 s400',
    'M0104 S250',
    'G1 X0 Z-5',
    'G28',
    'G29',
    'G0',
    'M84',
    'M999 Z-5',
    'M999 G1 Z0',
    'M999G28',
    'T1',
    'M140 S200',
    'M302 P1',
    'M999 S1 M104 S300',
  ].map((offCommand): [string, Partial<FirstLayerPrintAsk>] => [
    `a command that moves or heats: ${offCommand}`,
    { offCommand },
  ]),
  ['a pad that finds no room: it would leave the plate', { print: { x: 0, y: 0, width: 120, depth: 50 }, pad: 50 }],
  ['a pad on the priming line', { print: { x: 0, y: 0, width: 70, depth: 40 }, pad: 60 }],
])('what is not safe is refused: %s', (_, more) => {
  expect(() => firstLayerPrint({ ...ASK, ...more })).toThrow(RangeError);
});

test('the same pads as a solid: closed boxes of one layer', () => {
  const { pads } = firstLayerPrint(ASK);
  const mesh = padSolid({ pads, layer: 0.25 });
  expect(mesh.triangles).toHaveLength(12 * pads.length);
  expect(Math.max(...mesh.corners.map(([, , z]) => z))).toBeCloseTo(0.25, 9);
  // A binary STL: 80 bytes, a count, 50 a triangle.
  expect(stlOf(mesh)).toHaveLength(84 + 50 * mesh.triangles.length);
  expect(() => padSolid({ pads: [], layer: 0.2 })).toThrow(RangeError);
});
