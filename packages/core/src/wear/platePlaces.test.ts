import { placesInWords, PLATE_PLACES } from './platePlaces';

test('places are told in the order of the plate, each once', () => {
  expect(placesInWords(['front', 'back-left', 'front'])).toBe('rear left, front');
  expect(placesInWords([])).toBe('');
  expect(placesInWords(PLATE_PLACES)).toBe('the whole plate');
});
