import { finishedInWords, turnsInWords } from './sentences';

const adjusters = [
  { id: 'a', name: 'front-left', x: 0, y: 0, thread: 'M4', pitch: 0.7, clockwise: 'lowers' as const },
  { id: 'b', name: 'rear', x: 0, y: 9, thread: 'M4', pitch: 0.7, clockwise: 'lowers' as const },
];

test('turns as the technician saw them', () => {
  const turns = [
    { adjusterId: 'a', turns: 0.25 },
    { adjusterId: 'b', turns: -1.375 },
  ];
  expect(turnsInWords(turns, { adjusters, seenFrom: 'above' })).toBe(
    'turned front-left a quarter turn clockwise, rear one and three eighths turns anticlockwise, looking down',
  );
  expect(turnsInWords(turns, { adjusters, seenFrom: 'below' })).toBe(
    'turned front-left a quarter turn anticlockwise, rear one and three eighths turns clockwise, looking up from below',
  );
});

test('no turns, and adjusters that are gone', () => {
  expect(turnsInWords([{ adjusterId: 'a', turns: 0 }], { adjusters, seenFrom: 'above' })).toBe('no turns made');
  expect(turnsInWords([{ adjusterId: 'old', turns: 0.5 }], { adjusters, seenFrom: 'above' })).toBe(
    'turned old half a turn clockwise, looking down',
  );
});

test('how a check ended', () => {
  const check = { machine: 'Dunlin', before: 0.31, after: 0.12, aim: 0.1, rounds: 3, note: 'Springs soft.' };
  expect(finishedInWords(check)).toBe(
    'Dunlin: level check finished, range 0.31 mm to 0.12 mm in 3 readings, over the aim of 0.10 mm. Springs soft.',
  );
  expect(finishedInWords({ ...check, before: 0.08, after: 0.08, rounds: 1, note: '' })).toBe(
    'Dunlin: level check finished, range 0.08 mm, within the aim of 0.10 mm.',
  );
});
