import { forwardRef, useId } from 'react';
import { View, type TextInput as NativeInput } from 'react-native';
import { TextInput } from 'react-native-paper';
import { FAMILY, RADIUS, TYPE, usePalette } from './theme';
import { withType } from './typeScale';
import { quantityShown, unitShown, type FieldUnit } from './typedQuantity';
import { useQuantity } from './useQuantity';
import { Words } from './Words';

interface Props {
  label: string;
  value: string;
  onChange: (text: string) => void;
  onBlur?: () => void;
  error?: string;
  hint?: string;
  /** Stands behind the number, as the shop counts; the value itself is in mm, °C or K. */
  unit?: FieldUnit;
  lines?: number;
  /** decimal: digits alone, which on some phones has no minus; signed: a number that may be below zero. */
  keyboard?: 'text' | 'decimal' | 'signed';
  placeholder?: string;
  /** Shows dots instead of what is typed. */
  secret?: boolean;
  testID?: string;
  onSubmit?: () => void;
}

/** One input with its label above, its unit behind and its fault below. */
export const Field = forwardRef<NativeInput, Props>(function Field(
  {
    label,
    value,
    onChange,
    onBlur,
    error,
    hint,
    unit,
    lines,
    keyboard = 'text',
    placeholder,
    secret,
    testID,
    onSubmit,
  },
  ref,
) {
  const palette = usePalette();
  const noteId = useId();
  const counts = unit !== undefined || keyboard !== 'text';
  const { shown, type } = useQuantity(value, unit, onChange);
  const behind = unit && unitShown(unit);
  return (
    <View style={{ flexGrow: 1, flexShrink: 1, minWidth: withType(unit ? 100 : 80) }}>
      {/* However long its words are, a row of fields gives way only where one is narrower than that. */}
      <View style={{ gap: 4, width: 0, minWidth: '100%' }}>
        {/* The kit shows the unit beside a number; while there is none, the label says it. */}
        <Words size="small" tone="steel">
          {behind && value === '' ? `${label}, ${behind}` : label}
        </Words>
        <TextInput
          ref={ref}
          mode="outlined"
          value={counts ? shown : value}
          onChangeText={counts ? type : onChange}
          onBlur={onBlur}
          onSubmitEditing={onSubmit}
          placeholder={placeholder !== undefined && counts ? quantityShown(placeholder, unit) : placeholder}
          placeholderTextColor={palette.steel}
          secureTextEntry={secret}
          autoComplete={secret ? 'current-password' : 'off'}
          multiline={lines !== undefined}
          numberOfLines={lines}
          inputMode={keyboard === 'decimal' ? 'decimal' : undefined}
          autoCorrect={false}
          autoCapitalize="none"
          error={Boolean(error)}
          aria-label={label}
          aria-invalid={Boolean(error)}
          {...({ 'aria-describedby': error || hint ? noteId : undefined } as object)}
          testID={testID}
          dense={false}
          right={
            behind ? (
              <TextInput.Affix text={behind} textStyle={{ fontFamily: FAMILY.regular, color: palette.steel }} />
            ) : undefined
          }
          outlineStyle={{ borderRadius: RADIUS }}
          style={{
            backgroundColor: palette.raised,
            fontSize: TYPE.body,
            ...(lines ? { minHeight: lines * withType(22) + 20 } : {}),
          }}
          contentStyle={{
            fontFamily: FAMILY.regular,
            ...(lines ? { minHeight: lines * withType(22) + 20, paddingTop: 12 } : {}),
          }}
        />
        {error ? (
          <Words size="small" tone="stop" live id={noteId} testID={testID ? `${testID}-error` : undefined}>
            {error}
          </Words>
        ) : hint ? (
          <Words size="small" tone="steel" id={noteId}>
            {hint}
          </Words>
        ) : null}
      </View>
    </View>
  );
});
