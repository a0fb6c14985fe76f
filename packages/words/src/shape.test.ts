import {
  changeWords,
  cureWords,
  lapWords,
  layerWords,
  lightWords,
  nextMapWords,
  partWords,
  shapeResultWords,
  shapeWords,
  shimWords,
  stripWords,
} from './shape';

const HOUSE = { units: 'mm', zone: 'UTC', numbers: 'point' } as const;
const IMPERIAL = { units: 'in', zone: 'UTC', numbers: 'comma' } as const;

test('a shape, its size, and where to look first; below what the probe sees is an answer', () => {
  const sees = { bow: 0.02, region: 0.04, bump: 0.06 };
  expect(shapeWords({ name: 'none', parts: [], sees }, HOUSE)).toBe(
    'No shape beyond what this probe can see: a bow of 0.02 mm would show.',
  );
  const region = { kind: 'region', at: { x: 0, y: 0 }, across: 50, size: 0.12, sd: 0.01 } as const;
  expect(shapeWords({ name: 'high-region', parts: [region], sees }, HOUSE)).toBe(
    'One high region, 0.12 mm. Look under the bed first.',
  );
  expect(shapeWords({ name: 'untold', parts: [], sees: null }, HOUSE)).toContain('read each place twice');
  expect(partWords({ kind: 'bow', along: 'y', size: -0.1, sd: 0.004 }, HOUSE)).toBe(
    'lower in the middle from front to rear, 0.10 mm ± 0.004',
  );
  expect(partWords({ ...region, size: 0.254 }, IMPERIAL)).toBe('a high region, 0,0100 in ± 0,0004');
});

test('a survey says what it is, and how far it can be trusted; no sum of lines is said closer than it is known', () => {
  const survey = { verdict: 'dish', flatness: 0.123, closure: 0.001, trust: 'closes', resolution: 0.02 } as const;
  expect(lightWords({ ...survey, suspects: [] }, HOUSE)).toEqual({
    verdict: 'Lower in the middle, 0.12 mm in all.',
    trust: 'Lines meet within 0.01 mm: the survey can be trusted.',
  });
  // Plain light without a feeler: how high it is hangs on nobody knows what.
  expect(lightWords({ ...survey, suspects: [], resolution: 0.38 }, HOUSE).verdict).toBe(
    'Lower in the middle, about 0.12 mm in all. Light alone can be wrong by 0.38 mm: try a feeler.',
  );
  const against = { ...survey, verdict: 'again', trust: 'contradicts', closure: 0.15 } as const;
  expect(lightWords({ ...against, suspects: ['diagonal-1', 'diagonal-2'] }, HOUSE).trust).toBe(
    'Lines miss each other by 0.15 mm. Look again: front left to rear right, or front right to rear left.',
  );
  expect(lightWords({ ...against, suspects: [] }, HOUSE).trust).toContain('all of them');
});

test('strips: one or many, cured, helped, refused with the reason', () => {
  const strip = { along: 'x', at: 117.5, from: 0, to: 235, layer: 2 } as const;
  expect(stripWords(strip, HOUSE)).toBe(
    'Left to right, its middle 118 mm from the front, from 0 mm to 235 mm from the left, as layer 2',
  );
  const plan = { why: null, strips: [strip], before: 0.15, after: 0.04 };
  expect(shimWords({ ...plan, verdict: 'cures' }, HOUSE)).toBe(
    '1 strip leaves 0.04 mm of 0.15 mm, once it is levelled again.',
  );
  expect(shimWords({ ...plan, strips: [strip, strip], verdict: 'helps' }, HOUSE)).toMatch(
    /^2 strips leave .* not within the aim\.$/,
  );
  expect(shimWords({ ...plan, verdict: 'no', why: 'region' }, HOUSE)).toContain('under the bed first');
});

test('a cure says what it leaves and what has to be so; one that is not offered says why', () => {
  const cure = { cure: 'ease', leaves: 0.03, within: true, needs: ['heater-off'], not: null, shims: null } as const;
  expect(cureWords({ ...cure, needs: ['heater-off'] }, HOUSE)).toBe(
    'Leaves 0.03 mm; only off the machine, its heater off it or its maker allowing it.',
  );
  expect(cureWords({ ...cure, needs: [], not: 'forbidden' }, HOUSE)).toBe('Not with its heater on it.');
});

test('lapping: how many rounds with how sure, doming, done', () => {
  const left = { rounds: 4, low: 2, high: 9 };
  expect(lapWords({ verdict: 'go-on', touched: 62, left, least: 'middle' }, HOUSE).verdict).toBe(
    '62 % touched, least at middle. About 4 rounds left, 2 to 9 in nine of ten.',
  );
  expect(lapWords({ verdict: 'doming', touched: 60, left: null }, HOUSE).next).toContain('no rocking');
  expect(lapWords({ verdict: 'done', touched: 100, left: null }, HOUSE).next).toMatch(/80 .* 120/);
});

test('a first layer printed with compensation off speaks of the map, with it on of the machine', () => {
  const found = { verdict: 'not-applied', way: null, over: -0.04, more: null, slope: { value: 1, sd: 0.1 } } as const;
  expect(layerWords(found, 'on', HOUSE).verdict).toBe('Compensation is not applied: thin where the bed is high.');
  expect(layerWords(found, 'on', HOUSE).next).toContain('0.04 mm under the layer: the nozzle stands low');
  expect(layerWords(found, 'off', HOUSE).verdict).toMatch(/^The map is true/);
  expect(layerWords({ ...found, verdict: 'compensated' }, 'off', HOUSE).verdict).toMatch(
    /should follow the map, and does not/,
  );
  expect(layerWords({ ...found, verdict: 'sign', slope: { value: -1, sd: 0.1 } }, 'off', HOUSE).verdict).toBe(
    'In this map + is lower.',
  );
  const untold = { ...found, verdict: 'untold', over: null, more: { readings: 8, at: [] } } as const;
  expect(layerWords({ ...untold, more: { readings: 8, at: [] } }, 'on', HOUSE).next).toMatch(/^8 readings more/);
});

test('maps, and the map that would tell more', () => {
  const change = { verdict: 'changed', range: 0.09, lift: 0, beyond: [{ x: 50, y: 120, by: 0.08 }] } as const;
  expect(changeWords({ ...change, beyond: [...change.beyond] }, HOUSE)).toBe(
    'Its shape changed by 0.09 mm, most 50 mm from the left and 120 mm from the front.',
  );
  expect(nextMapWords({ machine: 'm', sheet: null, turned: 0, flipped: false, settles: 22 }, 'Dunlin', '')).toBe(
    'Dunlin read bare, without a sheet',
  );
  expect(nextMapWords({ machine: 'm', sheet: 's', turned: 1, flipped: true, settles: 9 }, 'Dunlin', 'S-002')).toBe(
    'S-002 on Dunlin, other side up, where it has two, its front mark to the right',
  );
});

test('each kind of record has its sentence', () => {
  expect(shapeResultWords({ kind: 'strips', before: 0.15, after: 0.04, strips: 4, layers: 2 }, HOUSE)).toBe(
    '4 strips of tape laid, 0.15 mm to 0.04 mm.',
  );
  expect(shapeResultWords({ kind: 'lap', verdict: 'done', touched: 100, rounds: 6, left: null }, HOUSE)).toMatch(
    /^lapped, 6 rounds/,
  );
});
