import { lossWords, spokenCard } from './spoken';

const nothing = { cautions: [], doings: [], sums: [], wait: null, checks: [], question: null };

test('cautions first, then the doing, then turns, times, and what is asked', () => {
  expect(
    spokenCard({
      cautions: ['hot'],
      doings: ['Bed at 60 to 70 °C.'],
      sums: ['Turn the stop screw a quarter turn clockwise.', 'Put a spacer of 3.2 mm on the switch.'],
      wait: '15 min',
      checks: ['Is the towel dry?'],
      question: 'What did you hear?',
    }),
  ).toEqual([
    'Careful. Hot. Nozzle and bed burn. Let them cool below 43 degrees before bare hands touch them.',
    'Bed at 60 to 70 degrees.',
    'Turn the stop screw a quarter turn clockwise.',
    'Put a spacer of 3.2 millimetres on the switch.',
    'Wait 15 min.',
    'Is the towel dry?',
    'What did you hear?',
  ]);
});

test('nothing is said of nothing', () => expect(spokenCard(nothing)).toEqual([]));

test('what it costs not to follow a part', () => {
  expect(lossWords(['place'])).toBe('Not followed: where it lies is not kept.');
  expect(lossWords(['place', 'hold', 'retired'])).toBe(
    'Not followed: where it lies is not kept, nobody is stopped from using it while it cures and it stays in every list.',
  );
  expect(lossWords([])).toBe('Nothing is lost by it.');
});
