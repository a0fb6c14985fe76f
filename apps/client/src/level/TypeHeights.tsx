import { useEffect, useRef } from 'react';
import { TextInput, View } from 'react-native';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Notice } from '../ui/Notice';
import { lengthUnit, size, sizeFigure } from '../ui/formatHeight';
import { FAMILY, RADIUS, TYPE, usePalette } from '../ui/theme';
import { withType } from '../ui/typeScale';
import { useQuantity } from '../ui/useQuantity';
import { Words } from '../ui/Words';
import { entryChanged, type CheckDraft, type TypedGrid } from './levelSlice';
import { emptyGrid, GRID_SIZES, isHeight, withMissingMarked, type gridFault, type GridSize } from './typedGrid';

interface Props {
  draft: CheckDraft;
  fault: ReturnType<typeof gridFault>;
}

/** A grid to type heights into, laid out like the bed: rear row at the top, front row at the bottom. */
export function TypeHeights({ draft, fault }: Props) {
  const dispatch = useAppDispatch();
  const { id, setup, entry } = draft;
  const { typed } = entry;
  const change = (next: TypedGrid) => dispatch(entryChanged({ id, change: { typed: next } }));
  const resize = (size: number) => change(emptyGrid(size, setup.printWidth, setup.printDepth, typed));
  useEffect(() => {
    if (!typed) resize(3);
    // Only to begin with; afterwards the grid is the person's.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  if (!typed) return null;
  return (
    <View style={{ gap: 12 }}>
      <Choice
        label="Places a side"
        options={GRID_SIZES.map((value) => ({ value, label: value }))}
        value={String(typed.xs.length) as GridSize}
        onChange={(size) => resize(Number(size))}
        testID="grid-size"
      />
      <Words size="small" tone="steel">
        {`Heights (${lengthUnit()}), + higher, nearer the nozzle. A thick gauge leaves the nozzle high: use the same one everywhere.`}
      </Words>
      <Grid grid={typed} onChange={change} />
      {fault && fault.kind !== 'empty' ? (
        <Notice kind="due" title={fault.message} testID="grid-fault">
          {fault.kind === 'missing' ? (
            <View style={{ alignSelf: 'flex-start' }}>
              <ActionButton
                label="Mark the empty ones as not reached"
                onPress={() => change(withMissingMarked(typed))}
                testID="mark-missing"
              />
            </View>
          ) : null}
        </Notice>
      ) : null}
    </View>
  );
}

function Grid({ grid, onChange }: { grid: TypedGrid; onChange: (grid: TypedGrid) => void }) {
  const inputs = useRef<(TextInput | null)[][]>([]);
  const { xs, ys, cells } = grid;
  const set = (r: number, c: number, text: string) =>
    onChange({
      ...grid,
      cells: cells.map((row, i) => (i === r ? row.map((cell, j) => (j === c ? text : cell)) : row)),
    });
  const go = (r: number, c: number) => inputs.current[r]?.[c]?.focus();
  /** Enter goes on as one walks round a bed: along the row, then to the start of the next one behind it. */
  const onKey = (key: string, r: number, c: number): boolean => {
    const moves: Record<string, [number, number]> = {
      ArrowUp: [r + 1, c],
      ArrowDown: [r - 1, c],
      Enter: c + 1 < xs.length ? [r, c + 1] : [r + 1, 0],
    };
    const move = moves[key];
    if (!move || !cells[move[0]]) return false;
    go(...move);
    return true;
  };
  const rows = ys.map((y, r) => ({ y, r })).reverse();
  return (
    <View role="group" aria-label="Heights, rear row first" style={{ gap: 6 }}>
      <Words size="small" tone="steel" align="center">
        REAR
      </Words>
      {rows.map(({ y, r }) => (
        <View key={r} style={{ flexDirection: 'row', gap: 6 }}>
          {xs.map((x, c) => {
            return (
              <Cell
                key={c}
                hold={(input) => {
                  (inputs.current[r] ??= [])[c] = input;
                }}
                text={cells[r]![c]!}
                onChange={(next) => set(r, c, next)}
                onKey={(key) => onKey(key, r, c)}
                label={`Height at x ${sizeFigure(x, 2)}, y ${size(y)}`}
                testID={`cell-${r}-${c}`}
              />
            );
          })}
        </View>
      ))}
      <Words size="small" bold align="center">
        FRONT
      </Words>
    </View>
  );
}

interface CellProps {
  hold: (input: TextInput | null) => void;
  text: string;
  onChange: (text: string) => void;
  /** @returns whether the key led elsewhere */
  onKey: (key: string) => boolean;
  label: string;
  testID: string;
}

/** The height of one place. */
function Cell({ hold, text, onChange, onKey, label, testID }: CellProps) {
  const palette = usePalette();
  const { shown, type } = useQuantity(text, 'mm', onChange);
  const bad = text.trim() !== '' && !isHeight(text);
  return (
    <TextInput
      ref={hold}
      value={shown}
      onChangeText={type}
      onKeyPress={(event) => {
        if (onKey(event.nativeEvent.key)) event.preventDefault();
      }}
      aria-label={label}
      aria-invalid={bad}
      inputMode="text"
      autoCorrect={false}
      // At once, not a moment later as the kit does: the next key may already be on its way.
      onFocus={({ target }) => (target as unknown as { select?: () => void }).select?.()}
      testID={testID}
      style={{
        flex: 1,
        minWidth: 0,
        height: Math.max(56, withType(40)),
        textAlign: 'center',
        borderWidth: bad ? 2 : 1,
        borderColor: bad ? palette.stop : palette.edge,
        borderRadius: RADIUS,
        backgroundColor: palette.raised,
        color: palette.ink,
        fontFamily: FAMILY.bold,
        fontSize: TYPE.lead,
      }}
    />
  );
}
