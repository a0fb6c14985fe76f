import type { ToolId } from '@even-bed/core';
import { Field } from '../ui/Field';
import type { ToolForm } from './useToolForm';

interface Props<T extends ToolId> {
  tool: ToolForm<T>;
  /** Where the value stands in the form; also names the field for tests. */
  path: string;
  label: string;
  unit?: string;
  hint?: string;
  text?: boolean;
}

/** One field of a tool's form. */
export function ToolField<T extends ToolId>({ tool, path, label, unit, hint, text }: Props<T>) {
  return (
    <Field
      label={label}
      {...tool.field(path)}
      {...(unit ? { unit } : {})}
      {...(hint ? { hint } : {})}
      keyboard={text ? 'text' : 'decimal'}
      testID={`field-${path}`}
    />
  );
}
