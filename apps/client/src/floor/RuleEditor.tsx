import type { MachineOverview } from '@even-bed/contract';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { dueWords } from '../rounds/dueWords';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { longDay } from '../ui/formatTime';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { useSaveRuleMutation } from '../rounds/roundsApi';

/** Common practice for a bed in daily use; a shop sets its own. */
const DEFAULT_DAYS = 14;

/** When the machine is checked next, and how often. */
export function RuleEditor({ machine, now, mayChange }: { machine: MachineOverview; now: number; mayChange: boolean }) {
  const { rule } = machine;
  const [editing, setEditing] = useState(false);
  const [days, setDays] = useState(String(rule?.everyDays ?? DEFAULT_DAYS));
  const [save, { isLoading, error }] = useSaveRuleMutation();
  const failure = errorOf(error);
  const submit = async () => {
    const body = {
      machineId: machine.id,
      kind: 'level' as const,
      everyDays: Number(days.replace(',', '.')),
      version: rule?.version ?? 0,
      at: Date.now(),
    };
    const result = await save({ id: rule?.id ?? uuid(), key: uuid(), body });
    if (!result.error) setEditing(false);
  };
  return (
    <Section title="NEXT LEVEL CHECK">
      {editing ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'flex-start', maxWidth: 420 }}>
          <Field
            label="Check every"
            unit="days"
            keyboard="decimal"
            value={days}
            onChange={setDays}
            error={failure ? (failure.fields['everyDays'] ?? failure.message) : undefined}
            testID="rule-days"
          />
          <View style={{ paddingTop: 23 }}>
            <ActionButton label="Save" kind="main" busy={isLoading} onPress={() => void submit()} testID="rule-save" />
          </View>
        </View>
      ) : (
        <View style={{ flexDirection: 'row', alignItems: 'center', justifyContent: 'space-between', gap: 12 }}>
          <View style={{ flexShrink: 1 }}>
            <Words bold testID="next-due">
              {rule ? dueSentence(dueWords(rule, now)) : 'No rule yet'}
            </Words>
            <Words size="small" tone="steel">
              {rule
                ? `${longDay(rule.nextDueAt)}, every ${rule.everyDays} days`
                : mayChange
                  ? 'Set how often this bed is checked.'
                  : 'A lead sets how often this bed is checked.'}
            </Words>
          </View>
          {mayChange ? (
            <ActionButton label="Change" kind="quiet" onPress={() => setEditing(true)} testID="rule-change" />
          ) : null}
        </View>
      )}
    </Section>
  );
}

const dueSentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);
