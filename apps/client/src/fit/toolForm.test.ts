import { TOOL_SCHEMAS, validate } from '@even-bed/contract';
import { typedOf, valueAt, withoutEmpty, withoutNumbers, withValue } from './toolForm';
import { EXAMPLES } from './toolExamples';
import { TOOLS } from '@even-bed/core/fit/toolInputs';

const form = { sheet: { width: '305', depth: '' }, pieces: [{ name: '', width: '1/4 in' }], mayRotate: true };

test('a value is found, and changed, where its path leads; the rest stays the same', () => {
  expect(valueAt(form, 'pieces.0.width')).toBe('1/4 in');
  expect(valueAt(form, 'pieces.3.width')).toBeUndefined();
  const changed = withValue(form, 'pieces.0.width', '12');
  expect(changed.pieces[0]).toEqual({ name: '', width: '12' });
  expect(changed.sheet).toBe(form.sheet);
  expect(form.pieces[0]!.width).toBe('1/4 in');
});

test('what was left empty is missing; what is false is not', () => {
  expect(withoutEmpty(form)).toEqual({ sheet: { width: '305' }, pieces: [{ width: '1/4 in' }], mayRotate: true });
  expect(withoutEmpty({ may: false })).toEqual({ may: false });
});

test('a plan comes back as it would be typed', () => {
  expect(typedOf({ kerf: 0, price: null, pieces: [{ width: 133.35 }], mayRotate: false })).toEqual({
    kerf: '0',
    price: '',
    pieces: [{ width: '133.35' }],
    mayRotate: false,
  });
});

test.each(TOOLS)('the example of %s is one that can be worked out, and survives being kept', (tool) => {
  const read = validate(TOOL_SCHEMAS[tool], withoutEmpty(EXAMPLES[tool]));
  expect(read).toMatchObject({ ok: true });
  if (!read.ok) return;
  expect(validate(TOOL_SCHEMAS[tool], withoutEmpty(typedOf(read.value)))).toEqual(read);
});

test('a cleared example keeps what is chosen and named, and loses every number', () => {
  const form = {
    family: 'filament',
    layers: [{ name: 'plate', thickness: '3', metal: '' }],
    pitch: '-0.5',
    screw: 'M3',
    beside: false,
    pad: null,
  };
  expect(withoutNumbers(form)).toEqual({
    family: 'filament',
    layers: [{ name: 'plate', thickness: '', metal: '' }],
    pitch: '',
    screw: 'M3',
    beside: false,
    pad: null,
  });
});
