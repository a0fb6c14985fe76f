import type { Scan } from '@even-bed/contract';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { allSent, useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Notice } from '../ui/Notice';
import { usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import { useStartScanMutation, useStopScanMutation } from './scanApi';
import { entryChanged, type CheckDraft } from './levelSlice';
import { checkRecord } from './levelWaits';
import { watchScan } from './watchScan';

/** Turns that were made reach the server before the bed is read, or the reading waits this long, ms. */
const SEND_FIRST_MS = 4_000;

interface Props {
  draft: CheckDraft;
  onScanned: (text: string) => void;
}

/** Has the machine read its bed over its console, with progress, and a way to stop. */
export function ScanHeights({ draft, onScanned }: Props) {
  const dispatch = useAppDispatch();
  const palette = usePalette();
  const [start] = useStartScanMutation();
  const [stop] = useStopScanMutation();
  const [scan, setScan] = useState<Scan | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [asking, setAsking] = useState(false);
  const { id, machineId, machineName } = draft;
  const { scanId } = draft.entry;

  useEffect(() => {
    if (scanId === null) return undefined;
    return watchScan(scanId, {
      onScan: (next) => {
        setScan(next);
        if (next.state === 'running') return;
        dispatch(entryChanged({ id, change: { scanId: null } }));
        if (next.state === 'done') onScanned(next.text);
        else setProblem(next.message);
      },
      onLost: () => {
        setScan(null);
        setProblem('The scan was lost: the server stopped answering. Read the heights again when it is back.');
        dispatch(entryChanged({ id, change: { scanId: null } }));
      },
    });
    // Watching begins once for each scan.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [scanId]);

  const begin = async () => {
    setProblem(null);
    setAsking(true);
    try {
      if (!(await allSent(checkRecord(id), SEND_FIRST_MS))) {
        setProblem(
          'The turns you made have not reached the server yet. Read the heights when it answers again, or type them.',
        );
        return;
      }
      const next = uuid();
      const result = await start({ machineId, id: next });
      const failure = errorOf(result.error);
      if (failure) setProblem(failure.message);
      else dispatch(entryChanged({ id, change: { scanId: next, text: '' } }));
    } finally {
      setAsking(false);
    }
  };

  const running = scanId !== null;
  return (
    <View style={{ gap: 14 }}>
      {running ? (
        <View style={{ gap: 10 }} testID="scan-progress">
          <View style={{ flexDirection: 'row', justifyContent: 'space-between' }} aria-live="polite">
            <Words bold>{scan?.step ?? `Calling ${machineName}`}</Words>
            <Words figures>{scan?.expected ? `${scan.taken} of ${scan.expected}` : ''}</Words>
          </View>
          <ProgressBar
            progress={scan?.expected ? scan.taken / scan.expected : 0}
            color={palette.accent}
            style={{ height: 8, backgroundColor: palette.hairline }}
            aria-label="Readings taken"
          />
          <View style={{ alignSelf: 'flex-start' }}>
            <ActionButton
              label="Stop the scan"
              icon="stop"
              onPress={() => void stop({ id: scanId })}
              testID="stop-scan"
            />
          </View>
        </View>
      ) : (
        <>
          <Notice kind="due" title="Hands clear: it moves and it is hot">
            <Words size="small">
              The bed warms up, the axes home by themselves. Plate clean, nozzle free of drips, nothing under the bed.
            </Words>
          </Notice>
          <ActionButton
            label={`Read the heights of ${machineName}`}
            kind="main"
            icon="console"
            busy={asking}
            onPress={() => void begin()}
            testID="scan"
          />
        </>
      )}
      {problem ? (
        <Notice kind="stop" title="No heights" testID="scan-problem">
          {problem}
        </Notice>
      ) : null}
    </View>
  );
}
