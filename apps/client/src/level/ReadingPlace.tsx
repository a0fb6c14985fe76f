import type { Extent, ParseOptions } from '@even-bed/core';
import { readLength } from '@even-bed/core/fleet/readLength';
import { useState, type ReactNode } from 'react';
import { View } from 'react-native';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';

/** Asks where a bare height map lies: the places of its outermost readings, and its first row. */
export function ReadingPlace({
  reading,
  matrix,
  onChange,
  children,
}: {
  reading: ParseOptions;
  matrix: { rows: number; columns: number };
  onChange: (reading: ParseOptions) => void;
  children?: ReactNode;
}) {
  const [typed, setTyped] = useState(() => textOf(reading.extent));
  const change = (key: keyof Extent, text: string) => {
    const next = { ...typed, [key]: text };
    setTyped(next);
    const extent = extentOfText(next);
    const { extent: _, ...rest } = reading;
    onChange(extent ? { ...rest, extent } : rest);
  };
  const field = (key: keyof Extent, label: string) => (
    <Field
      label={label}
      unit="mm"
      keyboard="decimal"
      value={typed[key]}
      onChange={(text) => change(key, text)}
      error={faultOf(typed, key)}
      testID={`extent-${key}`}
    />
  );
  return (
    <Section title={`A MAP OF ${matrix.columns} × ${matrix.rows} READINGS: WHERE DOES IT LIE?`} testID="placement">
      <Choice
        label="Its first row, as printed, lies"
        options={[
          { value: 'front', label: 'At the front' },
          { value: 'rear', label: 'At the rear' },
        ]}
        value={reading.firstRow ?? null}
        onChange={(firstRow) => onChange({ ...reading, firstRow })}
        testID="first-row"
      />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        {field('x0', 'First x')}
        {field('x1', 'Last x')}
      </View>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        {field('y0', 'First y')}
        {field('y1', 'Last y')}
      </View>
      <Words size="small" tone="steel">
        The outermost readings, from the front-left corner of the print area.
      </Words>
      {children}
    </Section>
  );
}

type ExtentText = Record<keyof Extent, string>;
const textOf = (extent: Extent | undefined): ExtentText => ({
  x0: extent ? String(extent.x0) : '',
  y0: extent ? String(extent.y0) : '',
  x1: extent ? String(extent.x1) : '',
  y1: extent ? String(extent.y1) : '',
});

function extentOfText(text: ExtentText): Extent | null {
  const [x0, y0, x1, y1] = [text.x0, text.y0, text.x1, text.y1].map((value) => readLength(value));
  if (x0 == null || y0 == null || x1 == null || y1 == null || !(x1 > x0) || !(y1 > y0)) return null;
  return { x0, y0, x1, y1 };
}

function faultOf(text: ExtentText, key: keyof Extent): string | undefined {
  const value = readLength(text[key]);
  if (text[key].trim() === '') return undefined;
  if (value === null) return 'Not a length';
  const first = readLength(text[key === 'x1' ? 'x0' : 'y0']);
  if ((key === 'x1' || key === 'y1') && first !== null && value <= first) return 'Must lie beyond the first';
  return undefined;
}
