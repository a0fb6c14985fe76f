import { useRouter } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { ScrollView, TextInput, View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useMachinesQuery } from '../fleet/fleetApi';
import { useSettingsQuery } from '../people/settingsApi';
import { deviceStore } from '../offline/deviceStore';
import { ActionButton } from '../ui/ActionButton';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { FAMILY, TYPE, usePalette } from '../ui/theme';
import { decimalMark } from '../ui/formatHeight';
import { withType } from '../ui/typeScale';
import { Words } from '../ui/Words';
import { EMPTY_ROW, GRID_COLUMNS, isEmptyRow, readRow, type GridRow } from './gridRows';
import { useAddPrintsMutation } from './wearApi';

const HEADS: Record<keyof GridRow, { label: string; width: number; example: string }> = {
  machine: { label: 'Machine', width: 130, example: 'Dunlin' },
  ended: { label: 'Ended', width: 170, example: '14:20' },
  held: { label: 'Held', width: 76, example: 'yes' },
  material: { label: 'Material', width: 110, example: 'PETG' },
  grams: { label: 'Grams', width: 84, example: '12.5' },
  failure: { label: 'How it failed', width: 150, example: 'let go' },
};
const KEPT = 'print-grid';
const START: GridRow[] = Array.from({ length: 4 }, () => EMPTY_ROW);

/** Many prints at once: a grid with arrows and Enter, kept until it is saved whole. */
export function PrintGridScreen() {
  const router = useRouter();
  const palette = usePalette();
  const { data: machines = [] } = useMachinesQuery();
  const { data: settings } = useSettingsQuery();
  const [rows, setRows] = useState<GridRow[]>(START);
  const [faults, setFaults] = useState<Record<string, string>>({});
  const [save, { isLoading, error }] = useAddPrintsMutation();
  const cells = useRef(new Map<string, TextInput | null>());
  const failure = errorOf(error);
  useEffect(() => {
    void deviceStore.get<GridRow[]>(KEPT, 'rows').then((kept) => kept && setRows(kept));
  }, []);
  const change = (r: number, column: keyof GridRow, text: string) => {
    const next = rows.map((row, i) => (i === r ? { ...row, [column]: text } : row));
    // There is always one empty row at the end.
    if (!isEmptyRow(next[next.length - 1]!)) next.push(EMPTY_ROW);
    setRows(next);
    void deviceStore.set(KEPT, 'rows', next);
  };
  const go = (r: number, c: number) => cells.current.get(`${r}-${c}`)?.focus();
  const onKey =
    (r: number, c: number) =>
    ({ nativeEvent: { key } }: { nativeEvent: { key: string } }) => {
      if (key === 'ArrowDown' || key === 'Enter') go(r + 1, c);
      if (key === 'ArrowUp') go(r - 1, c);
    };
  const submit = async () => {
    const found: Record<string, string> = {};
    const prints = rows.flatMap((row, r) => {
      if (isEmptyRow(row)) return [];
      const read = readRow(row, { machines, zone: settings?.zone ?? 'UTC', now: Date.now() });
      if (read.ok) return [{ ...read.print, id: uuid() }];
      for (const [column, message] of Object.entries(read.faults)) found[`${r}-${column}`] = message;
      return [];
    });
    setFaults(found);
    if (Object.keys(found).length > 0 || prints.length === 0) return;
    const result = await save({ key: uuid(), body: { prints } });
    if (result.error) return;
    await deviceStore.remove(KEPT, 'rows');
    router.replace('/prints');
  };
  const count = rows.filter((row) => !isEmptyRow(row)).length;
  return (
    <Page
      title="Type many prints"
      testID="print-grid"
      crumbs={[{ label: 'Prints', href: '/prints' }]}
      actions={
        <ActionButton
          label={count === 0 ? 'Save' : `Save ${count}`}
          kind="main"
          grow
          busy={isLoading}
          disabled={count === 0}
          onPress={() => void submit()}
          testID="grid-save"
        />
      }
    >
      <Words size="small" tone="steel">
        A time alone means the last time the clock showed it. Held: yes or no. Arrows and Enter go from row to row; all
        lines are saved, or none.
      </Words>
      {failure ? (
        <Notice kind="stop" title="Not saved">
          {failure.message}
        </Notice>
      ) : null}
      {Object.keys(faults).length > 0 ? (
        <Notice kind="stop" title="Some cells need another look" testID="grid-faults">
          <View>
            {Object.entries(faults)
              .slice(0, 6)
              .map(([at, message]) => (
                <Words key={at}>{`Row ${Number(at.split('-')[0]) + 1}: ${message}`}</Words>
              ))}
          </View>
        </Notice>
      ) : null}
      <ScrollView horizontal>
        <View>
          <View style={{ flexDirection: 'row' }}>
            {GRID_COLUMNS.map((column) => (
              <View key={column} style={{ width: withType(HEADS[column].width), padding: 6 }}>
                <Words size="small" bold>
                  {HEADS[column].label}
                </Words>
              </View>
            ))}
          </View>
          {rows.map((row, r) => (
            <View key={r} style={{ flexDirection: 'row' }}>
              {GRID_COLUMNS.map((column, c) => (
                <TextInput
                  key={column}
                  ref={(input) => void cells.current.set(`${r}-${c}`, input)}
                  value={row[column]}
                  onChangeText={(text) => change(r, column, text)}
                  onKeyPress={onKey(r, c)}
                  placeholder={r === 0 ? decimalMark(HEADS[column].example) : undefined}
                  placeholderTextColor={palette.steel}
                  autoCorrect={false}
                  autoCapitalize="none"
                  aria-label={`${HEADS[column].label}, row ${r + 1}`}
                  aria-invalid={Boolean(faults[`${r}-${column}`])}
                  testID={`grid-${r}-${column}`}
                  style={{
                    width: withType(HEADS[column].width),
                    minHeight: 48,
                    paddingHorizontal: 8,
                    borderWidth: faults[`${r}-${column}`] ? 2 : 1,
                    borderColor: faults[`${r}-${column}`] ? palette.stop : palette.edge,
                    marginRight: -1,
                    marginBottom: -1,
                    backgroundColor: palette.raised,
                    color: palette.ink,
                    fontFamily: FAMILY.regular,
                    fontSize: TYPE.body,
                  }}
                />
              ))}
            </View>
          ))}
        </View>
      </ScrollView>
    </Page>
  );
}
