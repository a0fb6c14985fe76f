import { BOOK_KINDS, type BookEvent, type BookKind, type EventPayloads } from '@even-bed/contract';
import { bookSentence } from './book';
import type { Reader } from './figures';

const NAMES = { machine: 'Dunlin', surface: 'S-014' };
const HOUSE: Reader = { units: 'mm', zone: 'UTC', numbers: 'point' };
const READERS: Reader[] = (['mm', 'in'] as const).flatMap((units) =>
  (['point', 'comma'] as const).map((numbers) => ({ units, numbers, zone: 'Europe/Lisbon' })),
);

const facts = { name: 'Dunlin' } as EventPayloads['machine-added']['facts'];
const surface = { tag: 'S-014', thickness: 0.5 } as EventPayloads['surface-changed']['from'];
const kind = { name: 'Textured' } as EventPayloads['kind-added']['to'];
const of = { kindName: 'Textured', sides: ['textured', 'smooth'] };
const at = 1_000;

/** An example of every kind; a kind without one does not compile. */
const EXAMPLES: { [Kind in BookKind]: EventPayloads[Kind] } = {
  'area-added': { areaId: 'a', name: 'Loft', position: 0 },
  'area-changed': { areaId: 'a', name: 'Loft', position: 0, was: 'Attic' },
  'machine-added': { facts, areaName: 'Loft' },
  'machine-changed': { changed: { plateWidth: { from: 200, to: 235 } } },
  'rule-set': { everyDays: { from: null, to: 1 } },
  'check-started': { aim: 0.1 },
  'heights-read': { roundId: 'r', seq: 2, source: 'typed', points: 9, range: 0.254, predicted: 0.05 },
  'turns-made': { roundId: 'r', seenFrom: 'above', turns: [{ adjusterId: 'fl', name: 'front-left', turns: -0.25 }] },
  'check-finished': { before: 0.3, after: 0.08, aim: 0.1, rounds: 3, note: 'Warm.' },
  'check-dropped': { before: null, after: null, aim: 0.1, rounds: 0, note: '' },
  'level-noted': { noteId: 'n', way: 'quarters', verdict: 'even', range: { least: 0, most: 0.03 } },
  'level-note-withdrawn': { noteId: 'n', way: 'skirt' },
  'shape-noted': {
    shapeId: 's',
    result: { kind: 'strips', before: 0.15, after: 0.04, strips: 4, layers: 2 },
  },
  'shape-withdrawn': { shapeId: 's', shape: 'light' },
  'gauge-kept': { gaugeId: 'g', name: 'Blue card', thickness: 0.208, uncertainty: 0.004 },
  'gauge-withdrawn': { gaugeId: 'g', name: 'Blue card' },
  practised: { practiceId: 'p', lesson: 'debris', seed: 4, points: 80, touches: 9, best: 2 },
  'z-marked': { markId: 'z', mark: 'zero' },
  'z-mark-withdrawn': { markId: 'z', mark: 'home' },
  'person-added': { personId: 'p', name: 'Wren', role: 'lead', active: true, secretKind: 'pin' },
  'person-changed': {
    personId: 'p',
    name: 'Wren',
    role: 'lead',
    active: false,
    newSecret: true,
    was: { name: 'Robin', role: 'looker', active: true },
  },
  'settings-changed': { changed: { units: { from: 'mm', to: 'in' }, address: { from: 'x', to: '' } } },
  'token-made': { tokenId: 't', name: 'console' },
  'token-revoked': { tokenId: 't', name: 'console' },
  'kind-added': { kindId: 'k', to: kind },
  'kind-changed': { kindId: 'k', from: kind, to: kind },
  'stack-changed': {
    from: [],
    to: [{ name: 'Pad', under: 'base', thickness: 1.5, measured: true, limit: null }],
  },
  'surface-added': { ...of, event: { kind: 'added', at, place: 'Rack 1' } },
  'surface-changed': { from: surface, to: { ...surface, thickness: 0.512 }, measuredIn: 'Fit a sheet' },
  'surface-mounted': { ...of, event: { kind: 'mounted', at, machineId: 'm', slot: 'top', sideUp: 'B', turned: 180 } },
  'surface-taken-off': { ...of, event: { kind: 'taken-off', at, place: '' } },
  'surface-moved': { ...of, event: { kind: 'moved', at, place: 'Rack 2' } },
  'surface-turned': { ...of, event: { kind: 'turned', at, sideUp: 'A', turned: 0 } },
  'surface-held': { ...of, event: { kind: 'held', at, hold: 'cure', until: at + 5_400_000, reason: 'Glue.' } },
  'surface-hold-cut': { ...of, event: { kind: 'hold-cut', at, reason: 'needed' } },
  'surface-work-asked': { ...of, event: { kind: 'work-asked', at, what: 'washing' } },
  'surface-work-undone': { ...of, event: { kind: 'work-undone', at, awaiting: 'washing', reason: 'a step undone' } },
  'surface-work-done': { ...of, event: { kind: 'work-done', at, work: 'washed', side: 'A', note: '' } },
  'surface-retired': { ...of, event: { kind: 'retired', at, why: 'bent' } },
  'surface-brought-back': { ...of, event: { kind: 'brought-back', at, why: 'straightened', place: '' } },
  'offset-kept': { offsetId: 'o', offset: -2.05, weight: 1, note: '' },
  'offset-withdrawn': { offsetId: 'o', offset: -2.05 },
  'print-logged': { printId: 'p', held: false, failure: 'let-go', release: null, material: 'PLA' },
  'print-described': {
    printId: 'p',
    held: false,
    was: { failure: 'other', release: null, places: [], note: '' },
    now: { failure: 'let-go', release: 'forced', places: ['back-left', 'back'], note: 'Draught from the door' },
  },
  'print-withdrawn': { printId: 'p', held: true, failure: null },
  'prints-added': { count: 1, failed: 0, first: 'p', last: 'p', list: null, machines: ['Dunlin'] },
  inspected: { inspectionId: 'i', card: 'coat', code: 'faded', numbers: {}, note: '' },
  'photo-added': { photoId: 'f', sha256: 'x', note: 'From the left.' },
  'job-started': { jobId: 'j', procedureId: 'p', version: 0, title: 'Fit a sheet', schools: ['Wet', 'Slow'] },
  'job-step': { jobId: 'j', said: { code: 'used', used: ['alcohol', 'wipes'] } },
  'job-handed-over': { jobId: 'j', title: 'Fit a sheet', toId: 'p', toName: 'Wren', note: 'Half done.' },
  'job-ended': { jobId: 'j', title: 'Fit a sheet', ended: 'stopped', note: 'no pad' },
  'procedure-saved': { procedureId: 'p', version: 3, title: 'Our sheet' },
  'plan-kept': { planId: 'l', tool: 'size', title: 'A pane', answer: { verdict: 'fits', by: 2.5 } },
  'plan-withdrawn': { planId: 'l', title: 'A pane' },
  correction: { corrects: 'x', was: 'One.', text: 'Two.' },
};

const say = (kindOf: BookKind, reader = HOUSE, names: { machine: string | null; surface: string | null } = NAMES) =>
  bookSentence({ kind: kindOf, data: EXAMPLES[kindOf] } as BookEvent, names, reader);

test.each(BOOK_KINDS)('%s is a whole sentence for every reader', (kindOf) => {
  for (const reader of READERS) {
    const sentence = say(kindOf, reader);
    expect(sentence).toMatch(/^\S.*[.!?]$|^\S.*[^.]$/);
    expect(sentence).not.toMatch(/undefined|null|NaN|\[object|Infinity|\s\s/);
    // Decimals carry the reader's mark, and lengths the reader's unit.
    if (reader.numbers === 'comma') expect(sentence).not.toMatch(/\d\.\d/);
    if (reader.units === 'in') expect(sentence).not.toMatch(/\d mm\b/);
    else expect(sentence).not.toMatch(/\d in\b/);
  }
});

test('lengths, signs and marks are the reader’s own', () => {
  expect(say('heights-read')).toBe('Dunlin: reading 2, 9 points, range 0.25 mm.');
  // 0.254 mm is a hundredth of an inch by definition (international yard and pound agreement, 1959).
  expect(say('heights-read', { ...HOUSE, units: 'in' })).toBe('Dunlin: reading 2, 9 points, range 0.0100 in.');
  expect(say('offset-kept')).toBe('Dunlin with S-014: Z offset −2.050 mm works.');
  expect(say('offset-kept', { ...HOUSE, numbers: 'comma' })).toContain('−2,050 mm');
  expect(say('stack-changed', { ...HOUSE, units: 'in' })).toBe(
    'Dunlin: plain layers of the stack are now Pad 0.05906 in.',
  );
});

test('a level by hand says what it could not measure', () => {
  expect(say('level-noted')).toBe('Dunlin: levelled by four quarter sheets, even, apart by 0.03 mm at most.');
  const noted = (range: EventPayloads['level-noted']['range'], verdict: 'uneven' | 'unproven') =>
    bookSentence({ kind: 'level-noted', data: { ...EXAMPLES['level-noted'], range, verdict } }, NAMES, HOUSE);
  expect(noted({ least: 0.02, most: null }, 'uneven')).toContain('not even yet, apart by 0.02 mm or more.');
  expect(noted({ least: 0.02, most: 0.05 }, 'uneven')).toContain('apart by 0.02 mm to 0.05 mm.');
  expect(noted(null, 'unproven')).toContain('its corners unproven, how far it is apart was not measured.');
  expect(say('z-marked')).toBe('Dunlin: zero was set.');
});

test('what is counted is one or many', () => {
  expect(say('rule-set')).toBe('Dunlin: level check every 1 day.');
  expect(say('print-described')).toBe(
    'Dunlin: the print that failed, let go on S-014: rear left, rear; forced off; Draught from the door.',
  );
  expect(say('prints-added')).toBe('1 print added from the grid: Dunlin; all held.');
  const data = {
    ...EXAMPLES['prints-added'],
    count: 40,
    failed: 3,
    list: 'March.csv',
    machines: ['A', 'B', 'C', 'D', 'E'],
  };
  expect(bookSentence({ kind: 'prints-added', data }, NAMES, HOUSE)).toBe(
    '40 prints added from March.csv: A, B, C, D and others; 3 failed.',
  );
});

test('turns are told as the technician saw them', () => {
  expect(say('turns-made')).toMatch(/^Dunlin: turned front-left .*, looking down\.$/);
  const data: EventPayloads['turns-made'] = { ...EXAMPLES['turns-made'], seenFrom: 'below' };
  const below = bookSentence({ kind: 'turns-made', data }, NAMES, HOUSE);
  expect(below).toMatch(/looking up from below\.$/);
  expect(below.replace('looking up from below', '')).not.toBe(say('turns-made').replace('looking down', ''));
  const none: EventPayloads['turns-made'] = { ...data, turns: [] };
  expect(bookSentence({ kind: 'turns-made', data: none }, NAMES, HOUSE)).toBe('Dunlin: no turns made.');
});

test('what motors moved is told as moves', () => {
  const data: EventPayloads['turns-made'] = {
    ...EXAMPLES['turns-made'],
    turns: [{ adjusterId: 'r', name: 'rear', turns: 0.12, motor: true }],
  };
  expect(bookSentence({ kind: 'turns-made', data }, NAMES, HOUSE)).toBe('Dunlin: moved rear up by 0.12 mm.');
});

test('a line of a machine names the machine, one of a surface its present tag', () => {
  expect(say('photo-added')).toBe('S-014: photo added. From the left.');
  expect(say('photo-added', HOUSE, { machine: 'Dunlin', surface: null })).toBe('Dunlin: photo added. From the left.');
  expect(say('surface-moved', HOUSE, { machine: null, surface: 'S-099' })).toBe('S-099 moved to Rack 2.');
  expect(say('token-made', HOUSE, { machine: null, surface: null })).toContain('another program');
});
