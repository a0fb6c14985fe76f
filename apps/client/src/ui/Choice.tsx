import { useRef, type ReactNode } from 'react';
import { Pressable, View } from 'react-native';
import { Icon } from './Icon';
import type { IconName } from './iconPaths';
import { RADIUS, TOUCH, usePalette } from './theme';
import { withType } from './typeScale';
import { Words } from './Words';

export interface Option<T extends string> {
  value: T;
  label: string;
  icon?: IconName;
  /** Stands above the words where people would rather look than read. */
  drawing?: ReactNode;
}

interface Props<T extends string> {
  label: string;
  options: readonly Option<T>[];
  value: T | null;
  onChange: (value: T) => void;
  error?: string;
  /** Puts the label where only readers that speak meet it. */
  hideLabel?: boolean;
  /** Many short words in a row. */
  narrow?: boolean;
  testID?: string;
}

/** A few choices side by side, one of them taken: a thick line below and bold words say which. */
export function Choice<T extends string>({
  label,
  options,
  value,
  onChange,
  error,
  hideLabel,
  narrow,
  testID,
}: Props<T>) {
  const palette = usePalette();
  const group = useRef<View>(null);
  const reached = options.some((option) => option.value === value) ? value : options[0]?.value;
  /** As radio buttons do: arrows go round and choose, Tab goes past the group. */
  const onKeyDown = (event: { key: string; preventDefault: () => void }) => {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    const at = options.findIndex((option) => option.value === reached);
    const next = (at + step + options.length) % options.length;
    onChange(options[next]!.value);
    (group.current as unknown as HTMLElement | null)?.querySelectorAll<HTMLElement>('[role="radio"]')[next]?.focus();
  };
  return (
    <View style={{ gap: 4, maxWidth: '100%' }}>
      {hideLabel ? null : (
        <Words size="small" tone="steel">
          {label}
        </Words>
      )}
      <View
        ref={group}
        role="radiogroup"
        {...({ onKeyDown } as object)}
        aria-label={label}
        testID={testID}
        style={{
          flexDirection: 'row',
          flexWrap: 'wrap',
          borderWidth: 1,
          borderColor: palette.edge,
          borderRadius: RADIUS,
          overflow: 'hidden',
        }}
      >
        {options.map((option, i) => {
          const taken = option.value === value;
          return (
            <Pressable
              key={option.value}
              role="radio"
              aria-checked={taken}
              aria-label={option.label}
              tabIndex={option.value === reached ? 0 : -1}
              onPress={() => onChange(option.value)}
              testID={testID ? `${testID}-${option.value}` : undefined}
              style={{
                flexGrow: 1,
                flexBasis: 0,
                minWidth: withType(option.drawing ? 100 : narrow ? 58 : 76),
                minHeight: TOUCH + 4,
                paddingHorizontal: 8,
                paddingVertical: 6,
                alignItems: 'center',
                justifyContent: option.drawing ? 'flex-end' : 'center',
                gap: option.drawing ? 6 : 2,
                backgroundColor: taken ? palette.raised : 'transparent',
                borderLeftWidth: i === 0 ? 0 : 1,
                borderLeftColor: palette.hairline,
                borderBottomWidth: 4,
                borderBottomColor: taken ? palette.accent : 'transparent',
              }}
            >
              {option.drawing}
              {option.icon ? <Icon name={option.icon} size={22} color={taken ? palette.ink : palette.steel} /> : null}
              <Words size="small" bold={taken} tone={taken ? 'ink' : 'steel'} align="center">
                {option.label}
              </Words>
            </Pressable>
          );
        })}
      </View>
      {error ? (
        <Words size="small" tone="stop">
          {error}
        </Words>
      ) : null}
    </View>
  );
}
