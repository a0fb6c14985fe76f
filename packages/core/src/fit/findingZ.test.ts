import { findingFrom, metalOf, type MachineFinding } from './findingZ';

test.each<[MachineFinding, 'filament' | 'resin', string]>([
  ['endstop', 'filament', 'spacer'],
  ['endstop', 'resin', 'flag'],
  ['by-hand', 'filament', 'fixed'],
  ['by-hand', 'resin', 'fixed'],
  ['contact-probe', 'filament', 'contact-probe'],
  ['inductive-probe', 'filament', 'inductive-probe'],
])('%s on a %s machine: %s', (finding, family, by) => expect(findingFrom(finding, family)).toBe(by));

test('what an inductive probe senses: metals, and nothing of what it does not know', () => {
  expect(metalOf('aluminium')).toBe('aluminium');
  expect(metalOf('glass')).toBeNull();
  expect(metalOf('')).toBeNull();
  expect(metalOf(null)).toBeNull();
});
