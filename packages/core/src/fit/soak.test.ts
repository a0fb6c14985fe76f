import { calibrateSoak } from './calibrateSoak';
import { conduct, resistanceOf, type HeatLayer } from './conduct';
import { DRY_JOINT, materialOf, MATERIALS } from './materials';
import { coolDown, setpointForTop, soak, type SoakInput } from './soak';

const layer = (id: string, thickness: number, more: Partial<HeatLayer> = {}): HeatLayer => ({
  ...materialOf(id),
  thickness,
  ...more,
});
const bed = [layer('aluminium', 3), layer('base', 1.2), layer('steel', 0.5), layer('pei', 0.15)];
const ask: SoakInput = { layers: bed, flux: 4000, setpoint: 100, ambient: 22, loss: 12, within: 2 };

/** Roots of ζ·tan ζ = Bi, one in each half period, by halving. */
function rootsOf(biot: number, count: number): number[] {
  return Array.from({ length: count }, (_, n) => {
    let low = n * Math.PI;
    let high = n * Math.PI + Math.PI / 2 - 1e-12;
    for (let i = 0; i < 80; i++) {
      const middle = (low + high) / 2;
      if (middle * Math.tan(middle) < biot) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  });
}
const firstFactor = (root: number) => (4 * Math.sin(root)) / (2 * root + Math.sin(2 * root));

describe('against the handbook', () => {
  // Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, table 5.1 (plane wall), from memory.
  test.each([
    [0.1, 0.3111, 1.0161],
    [0.5, 0.6533, 1.0701],
    [1, 0.8603, 1.1191],
    [10, 1.4289, 1.262],
  ])('the series used here has the coefficients of table 5.1 at Bi = %p', (biot, root, factor) => {
    const [first] = rootsOf(biot, 1);
    expect(first).toBeCloseTo(root, 4);
    expect(firstFactor(first!)).toBeCloseTo(factor, 3);
  });

  // Plane wall with convection (eq. 5.39): a slab insulated below is half of it. Top face at x* = 1.
  test.each([
    ['glass', 12, 10],
    ['glass', 12, 200],
    ['granite', 30, 1500],
  ] as const)('%s of %p mm cooling at %p W/m²K follows the series to 1 %%', (id, thickness, loss) => {
    const slab = layer(id, thickness);
    const metres = thickness / 1000;
    const diffusivity = slab.conductivity / (slab.density * slab.heatCapacity);
    const roots = rootsOf((loss * metres) / slab.conductivity, 200);
    const series = (time: number) =>
      roots.reduce(
        (sum, root) =>
          sum + firstFactor(root) * Math.exp((-(root ** 2) * diffusivity * time) / metres ** 2) * Math.cos(root),
        0,
      );
    const slowest = metres ** 2 / (diffusivity * roots[0]! ** 2);
    const stops = [0.05, 0.2, 0.5, 1, 2].map((part) => part * slowest);
    const run = conduct({
      layers: [slab],
      start: 100,
      flux: 0,
      setpoint: null,
      ambient: 20,
      loss,
      longest: stops[4]!,
      stops,
    });
    for (const stop of stops) {
      const i = run.time.findIndex((time) => Math.abs(time - stop) < 1e-6);
      const left = (run.top[i]! - 20) / 80;
      expect(Math.abs(left / series(stop) - 1)).toBeLessThan(0.01);
    }
    const { seconds } = coolDown({
      layers: [slab],
      bottom: 100,
      top: 100,
      ambient: 20,
      loss,
      to: 20 + 80 * series(slowest),
    });
    expect(Math.abs(seconds! / slowest - 1)).toBeLessThan(0.01);
  });

  test('a thin plate is one lump: T = ambient + (T₀ − ambient)·exp(−h·t/ρcL), section 5.1, to 1 %', () => {
    const plate = layer('aluminium', 3);
    const tau = (plate.density * plate.heatCapacity * 0.003) / 10;
    const to = 20 + 80 * Math.exp(-1);
    const { seconds } = coolDown({ layers: [plate], bottom: 100, top: 100, ambient: 20, loss: 10, to });
    expect(Math.abs(seconds! / tau - 1)).toBeLessThan(0.01);
  });

  test('heated, the same lump comes to its setpoint when h·ΔT/q of the exponential is used up, to 1 %', () => {
    const plate = layer('aluminium', 3);
    const run = soak({ layers: [plate], flux: 2000, setpoint: 80, ambient: 20, loss: 10, within: 1 });
    const capacity = plate.density * plate.heatCapacity * 0.003;
    const at = -(capacity / 10) * Math.log(1 - (10 * 60) / 2000);
    expect(Math.abs(run.setpointAt! / at - 1)).toBeLessThan(0.01);
  });

  test('constant flux into an insulated slab: Carslaw & Jaeger, Conduction of Heat in Solids, section 3.8, to 1 %', () => {
    const slab = layer('glass', 10);
    const [l, k, q, time] = [0.01, slab.conductivity, 1000, 60];
    const a = k / (slab.density * slab.heatCapacity);
    // Distance counted from the insulated face.
    const rise = (x: number) => {
      let sum = 0;
      for (let n = 1; n < 60; n++)
        sum +=
          ((-1) ** n / n ** 2) *
          Math.exp((-a * n ** 2 * Math.PI ** 2 * time) / l ** 2) *
          Math.cos((n * Math.PI * x) / l);
      return (
        (q * a * time) / (k * l) + ((q * l) / k) * ((3 * x ** 2 - l ** 2) / (6 * l ** 2) - (2 / Math.PI ** 2) * sum)
      );
    };
    const run = conduct({ layers: [slab], start: 20, flux: q, setpoint: null, ambient: 20, loss: 0, longest: time });
    expect(Math.abs((run.top.at(-1)! - 20) / rise(0) - 1)).toBeLessThan(0.01);
    expect(Math.abs((run.bottom.at(-1)! - 20) / rise(l) - 1)).toBeLessThan(0.01);
  });
});

describe('a stack of four', () => {
  test('in = lost + stored, to 0.1 %', () => {
    for (const loss of [0, 5, 12, 60]) {
      const { energy } = soak({ ...ask, loss });
      expect(Math.abs(energy.in - energy.lost - energy.stored)).toBeLessThan(0.001 * energy.in);
      expect(energy.stored).toBeGreaterThan(0);
    }
  });

  test('a grid twice as fine changes the answer by less than 0.5 %', () => {
    for (const layers of [bed, [layer('aluminium', 3), layer('glass', 4, { contactResistance: DRY_JOINT })]]) {
      const coarse = soak({ ...ask, layers }).seconds!;
      const fine = soak({ ...ask, layers, cells: 24 }).seconds!;
      expect(Math.abs(fine / coarse - 1)).toBeLessThan(0.005);
    }
  });

  test('the top ends at the steady state of resistances in series, and is within reach of it when said', () => {
    const { steadyTop, seconds, curve } = soak(ask);
    const r = 0.003 / 177 + 0.0012 / 0.5 + 0.0005 / 60.5 + 0.00015 / 0.22;
    expect(steadyTop).toBeCloseTo(22 + 78 / (12 * r + 1), 9);
    expect(curve.top[curve.time.indexOf(seconds!)]).toBeCloseTo(steadyTop - 2, 2);
    expect(curve.time.at(-1)! / seconds!).toBeCloseTo(1.5, 6);
    const longer = conduct({
      layers: bed,
      start: 22,
      flux: 4000,
      setpoint: 100,
      ambient: 22,
      loss: 12,
      longest: 20_000,
    });
    expect(longer.top.at(-1)).toBeCloseTo(steadyTop, 3);
    expect(longer.bottom.at(-1)).toBe(100);
  });

  test('heat only ever rises, and the bottom waits for the top', () => {
    const { curve } = soak(ask);
    for (let i = 1; i < curve.time.length; i++) {
      expect(curve.top[i]!).toBeGreaterThanOrEqual(curve.top[i - 1]! - 1e-3);
      expect(curve.bottom[i]!).toBeGreaterThanOrEqual(curve.top[i]!);
      expect(curve.bottom[i]!).toBeLessThanOrEqual(100 + 1e-3);
    }
  });

  test('thicker takes longer and ends cooler; a dry joint does too', () => {
    const thin = soak(ask);
    const thick = soak({ ...ask, layers: [...bed, layer('glass', 4)] });
    const dry = soak({ ...ask, layers: [...bed, layer('glass', 4, { contactResistance: DRY_JOINT })] });
    expect(thick.seconds!).toBeGreaterThan(thin.seconds!);
    expect(dry.seconds!).toBeGreaterThan(thick.seconds!);
    expect(dry.steadyTop).toBeLessThan(thick.steadyTop);
  });

  test('a heater too weak for its setpoint says so, and what it holds', () => {
    const weak = soak({ ...ask, flux: 500 });
    expect(weak).toMatchObject({ holdsSetpoint: false, setpointAt: null });
    expect(weak.steadyTop).toBeCloseTo(22 + 500 / 12, 9);
    expect(weak.seconds).not.toBeNull();
  });

  test('near enough from the start takes no time', () => {
    expect(soak({ ...ask, within: 90 }).seconds).toBe(0);
  });

  test('the setpoint for a wanted top gives that top', () => {
    const { setpoint, flux } = setpointForTop({ layers: bed, ambient: 22, loss: 12, top: 95 });
    expect(soak({ ...ask, setpoint }).steadyTop).toBeCloseTo(95, 9);
    expect(flux).toBe(12 * 73);
  });

  test('cooling begins from the slope it had, and is there at once when it is cold', () => {
    const { steadyTop } = soak(ask);
    const cooling = coolDown({ layers: bed, bottom: 100, top: steadyTop, ambient: 22, loss: 12, to: 43 });
    expect(cooling.curve.bottom[0]).toBe(100);
    expect(cooling.curve.top.at(-1)).toBeCloseTo(43, 2);
    expect(coolDown({ layers: bed, bottom: 40, top: 39, ambient: 22, loss: 12, to: 43 }).seconds).toBe(0);
  });
});

describe('calibration', () => {
  const truth = { flux: 2600, loss: 9 };
  const read = (at: number) => {
    const run = conduct({ layers: bed, start: 22, ...truth, setpoint: 100, ambient: 22, longest: at });
    return { at, top: run.top.at(-1)! };
  };

  test('finds flux and loss again from two readings of a run that it did not see', () => {
    const found = calibrateSoak({ layers: bed, setpoint: 100, ambient: 22, readings: [read(200), read(2400)] });
    expect(found.found).toBe(true);
    if (!found.found) return;
    expect(found.flux).toBeCloseTo(truth.flux, -1);
    expect(Math.abs(found.loss / truth.loss - 1)).toBeLessThan(0.01);
    expect(found.perDegree.loss).toBeGreaterThan(0.1);
  });

  test('two late readings do not tell heater from air, and it says so', () => {
    const found = calibrateSoak({ layers: bed, setpoint: 100, ambient: 22, readings: [read(5000), read(6000)] });
    expect(found).toMatchObject({ found: false });
  });

  test('readings that can not be are refused', () => {
    const readings = [
      { at: 100, top: 50 },
      { at: 90, top: 60 },
    ] as const;
    expect(() => calibrateSoak({ layers: bed, setpoint: 100, ambient: 22, readings })).toThrow('one after the other');
    const hot = [
      { at: 100, top: 50 },
      { at: 900, top: 120 },
    ] as const;
    expect(() => calibrateSoak({ layers: bed, setpoint: 100, ambient: 22, readings: hot })).toThrow('between');
  });
});

test.each([
  [{ ...ask, layers: [] }, 'one layer'],
  [{ ...ask, layers: [{ ...bed[0]!, density: 0 }] }, 'density above 0, layer 1 has 0'],
  [{ ...ask, layers: [bed[0]!, { ...bed[1]!, contactResistance: -1 }] }, 'contact'],
  [{ ...ask, flux: 0 }, 'flux'],
  [{ ...ask, setpoint: 20 }, 'setpoint above ambient'],
  [{ ...ask, loss: -1 }, 'loss'],
  [{ ...ask, within: 0 }, 'reach'],
])('%#: impossible heat is refused', (bad, words) => {
  expect(() => soak(bad)).toThrow(words);
});

test('every material has a source, and its resistance is that of its thickness', () => {
  for (const material of MATERIALS) expect(material.source).not.toBe('');
  expect(resistanceOf([layer('glass', 4)])).toBeCloseTo(0.004 / 1.4, 12);
  expect(() => materialOf('unobtainium')).toThrow('unobtainium');
});

test('from a steady slope, shut off from the room, a slab comes to its mean', () => {
  // Conservation of energy: what is in it stays in it.
  const slab = { thickness: 4, conductivity: 1, density: 2500, heatCapacity: 800 };
  const run = conduct({
    layers: [slab],
    start: { bottom: 80, top: 40 },
    flux: 0,
    setpoint: null,
    ambient: 20,
    loss: 0,
    longest: 600,
  });
  expect(run.bottom[0]).toBe(80);
  expect(run.top[0]).toBe(40);
  expect(run.bottom.at(-1)).toBeCloseTo(60, 1);
  expect(run.top.at(-1)).toBeCloseTo(60, 1);
  expect(Math.max(...run.bottom, ...run.top)).toBeLessThanOrEqual(80 + 1e-9);
});
