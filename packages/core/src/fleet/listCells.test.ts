import { decodeText } from './decodeText';
import { adjustersCell, listNumber, readAdjustersCell, undefused, type ListedAdjuster } from './listCells';

const knob = (change: Partial<ListedAdjuster> = {}): ListedAdjuster => ({
  id: 'rear',
  name: 'rear',
  x: 110,
  y: 205.3,
  thread: 'M4',
  pitch: 0.7,
  clockwise: 'lowers',
  ...change,
});

test('adjusters come back as they were written', () => {
  const all = [knob(), knob({ id: 'left: the old one', name: 'left: the old one', x: -4.25, clockwise: 'raises' })];
  expect(readAdjustersCell(adjustersCell(all))).toEqual(all);
});

test('two of one name are told apart, and a semicolon in a name does not cut it', () => {
  const read = readAdjustersCell(adjustersCell([knob(), knob({ x: 3 }), knob({ name: 'a;b', id: 'q' })]))!;
  expect(read.map(({ id }) => id)).toEqual(['rear', 'rear 2', 'a,b']);
});

test.each([
  '',
  '4',
  'rear',
  'rear: 1, 2',
  'rear: 1, 2, M4, 0 a turn, lowers',
  'rear: 1, 2, , -0.7 a turn, lowers',
  'rear: 1.2.3, 2, M4, 0.7 a turn, lowers',
  'rear: NaN, 2, M4, 0.7 a turn, lowers',
  'rear: 1, 2, M4, 0.7 a turn, turns',
  Array.from({ length: 13 }, () => 'rear: 1, 2, M4, 0.7 a turn, lowers').join(';'),
  `${'x'.repeat(1e6)}`,
])('%.40s is no list of adjusters', (text) => expect(readAdjustersCell(text)).toBeNull());

test('numbers without dust; a disarmed cell says what it said; letters of older tables are kept', () => {
  expect(listNumber(0.1 + 0.2)).toBe(0.3);
  expect(undefused("'=1+1")).toBe('=1+1');
  expect(undefused("'tis")).toBe("'tis");
  expect(decodeText(Uint8Array.from([0x4d, 0xfc, 0x77, 0x65]))).toBe('Müwe');
  expect(decodeText(new TextEncoder().encode('\uFEFFMöwe'))).toBe('Möwe');
});
