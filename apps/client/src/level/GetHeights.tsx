import { useEffect, useRef } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Choice, type Option } from '../ui/Choice';
import { Page } from '../ui/Page';
import { SPACE, useIsWide } from '../ui/theme';
import { useKeys } from '../ui/useKeys';
import { Words } from '../ui/Words';
import { Refusal } from './CheckSending';
import { feltText } from '@even-bed/core/level/feltText';
import { DropCheck } from './DropCheck';
import { FeelHeights, feltState, isFelt, NOT_FELT } from './FeelHeights';
import { entryChanged, heightsTaken, turningReturnedTo, type CheckDraft, type HeightWay } from './levelSlice';
import { PasteHeights } from './PasteHeights';
import { ReadingPreview } from './ReadingPreview';
import { RoundList } from './RoundList';
import { ScanHeights } from './ScanHeights';
import { gridFault, gridText } from './typedGrid';
import { TakenAsLearned } from './TakenAsLearned';
import { TypeHeights } from './TypeHeights';
import { useReckoning } from './useReckoning';
import { useStopPitch } from './useStopPitch';

const WAYS: readonly Option<HeightWay>[] = [
  { value: 'machine', label: 'Machine', icon: 'console' },
  { value: 'pasted', label: 'Paste', icon: 'paste' },
  { value: 'file', label: 'File', icon: 'file' },
  { value: 'typed', label: 'Type', icon: 'type' },
  { value: 'felt', label: 'Feel', icon: 'look' },
];

/** Gets the heights of a bed: from the machine, by paste, from a file, or typed place by place. */
export function GetHeights({ draft }: { draft: CheckDraft }) {
  const dispatch = useAppDispatch();
  const wide = useIsWide();
  const { id, entry, setup, rounds } = draft;
  const stopPitch = useStopPitch(draft.machineId);
  const ways = draft.hasConsole ? WAYS : WAYS.filter(({ value }) => value !== 'machine');
  const fault = entry.way === 'typed' && entry.typed ? gridFault(entry.typed) : null;
  const felt = entry.way === 'felt' && entry.felt ? feltState(setup, entry.felt) : null;
  const raw =
    entry.way === 'typed'
      ? entry.typed && !fault
        ? gridText(entry.typed)
        : ''
      : entry.way === 'felt'
        ? felt && isFelt(felt)
          ? feltText(felt)
          : ''
        : entry.text;
  const now = raw.trim() === '' ? null : { raw, reading: entry.reading };
  const state = useReckoning({ now, setup });
  const ready = state.kind === 'done' && state.reckoning.plan !== null;

  const use = () => {
    if (!ready || !now) return;
    const { range } = state.reckoning.plan!.before;
    dispatch(heightsTaken({ id, round: { id: uuid(), takenAt: Date.now(), source: entry.way, range, ...now } }));
  };
  useKeys({ u: use });

  // Heights that came from the machine whole and without a question need no second tap.
  const scanned = useRef(false);
  useEffect(() => {
    if (!scanned.current || (state.kind !== 'done' && state.kind !== 'failed')) return;
    scanned.current = false;
    const { parsed, doubts } = state.kind === 'done' ? state.reckoning : { parsed: null, doubts: [] };
    if (ready && parsed && parsed.warnings.length + parsed.questions.length + doubts.length === 0) use();
  });
  const onScanned = (text: string) => {
    scanned.current = true;
    dispatch(entryChanged({ id, change: { text } }));
  };

  return (
    <Page
      title={rounds.length === 0 ? 'Get the heights' : 'Measure again'}
      crumbs={[{ label: `${draft.machineName} · ${draft.areaName}`, href: `/floor/${draft.machineId}` }]}
      state={
        <Words size="small" tone="steel">
          {`reading ${rounds.length + 1}`}
        </Words>
      }
      testID="get-heights"
      actions={
        <>
          {rounds.length > 0 ? (
            <ActionButton
              label="Back to the turns"
              onPress={() => dispatch(turningReturnedTo({ id }))}
              testID="back-to-turns"
            />
          ) : (
            <DropCheck draft={draft} />
          )}
          {/* Before the first touch there is one thing to do, and it stands above. */}
          {entry.way === 'felt' && !felt ? null : (
            <ActionButton
              label="Use these heights"
              kind="main"
              grow
              disabled={!ready}
              onPress={use}
              testID="use-heights"
            />
          )}
        </>
      }
    >
      <Refusal draft={draft} />
      <TakenAsLearned draft={draft} />
      <View style={wide ? { flexDirection: 'row', gap: 32 } : { gap: SPACE.m }}>
        <View style={{ gap: SPACE.m, ...(wide ? { flex: 1.2 } : {}) }}>
          {felt ? null : (
            <Choice
              label="Where the heights come from"
              hideLabel
              narrow
              options={ways}
              value={entry.way}
              onChange={(way) => dispatch(entryChanged({ id, change: { way } }))}
              testID="way"
            />
          )}
          {entry.way === 'machine' ? <ScanHeights draft={draft} onScanned={onScanned} /> : null}
          {entry.way === 'pasted' || entry.way === 'file' ? <PasteHeights draft={draft} /> : null}
          {entry.way === 'typed' ? <TypeHeights draft={draft} fault={fault} /> : null}
          {entry.way === 'felt' ? (
            <FeelHeights
              bed={{ adjusters: setup.adjusters, seenFrom: setup.seenFrom, names: draft.adjusterNames }}
              felt={entry.felt ?? NOT_FELT}
              onChange={(next) => dispatch(entryChanged({ id, change: { felt: next } }))}
              stopPitch={stopPitch}
            />
          ) : null}
        </View>
        <View style={{ gap: SPACE.m, ...(wide ? { flex: 1 } : {}) }}>
          <ReadingPreview draft={draft} state={state} />
          {rounds.length > 0 ? <RoundList draft={draft} /> : null}
        </View>
      </View>
    </Page>
  );
}
