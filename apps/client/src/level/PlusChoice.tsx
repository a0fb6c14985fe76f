import type { ParseOptions } from '@even-bed/core';
import { Choice } from '../ui/Choice';

/** What + means in a text of heights; null: nobody said. */
export function PlusChoice({
  value,
  onChange,
}: {
  value: ParseOptions['plus'] | null;
  onChange: (plus: NonNullable<ParseOptions['plus']>) => void;
}) {
  return (
    <Choice
      label="+ in these heights means"
      options={[
        { value: 'higher', label: 'Higher, nearer the nozzle' },
        { value: 'lower', label: 'Lower' },
      ]}
      value={value ?? null}
      onChange={onChange}
      testID="plus"
    />
  );
}
