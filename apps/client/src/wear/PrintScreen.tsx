import { timeTaken } from '@even-bed/words/span';
import type { MachineOverview, Print } from '@even-bed/contract';
import { placesInWords } from '@even-bed/core/wear/platePlaces';
import { FAILURE_WORDS, RELEASE_WORDS } from '@even-bed/core/wear/printWords';
import { useLocalSearchParams } from 'expo-router';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useKnownMachine } from '../fleet/useKnownMachine';
import { ActionButton } from '../ui/ActionButton';
import { Columns } from '../ui/Columns';
import { Facts } from '../ui/Facts';
import { clockTime, longDay } from '../ui/formatTime';
import { Failed, Loading } from '../ui/Loading';
import { NinePlaces } from '../ui/NinePlaces';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { useSteadyTap } from '../ui/useSteadyTap';
import { SayMore } from './SayMore';
import { usePrintQuery, useWithdrawPrintMutation } from './wearApi';

interface Props {
  mayDo: boolean;
  /** What other areas know of it. */
  parts: (print: Print) => ReactNode;
}

/** One print: what was written down, more to say of it, its photos, and what was different from the last one that held. */
export function PrintScreen({ mayDo, parts }: Props) {
  const { printId } = useLocalSearchParams<{ printId: string }>();
  const { data: print, error, refetch } = usePrintQuery({ id: printId });
  const { data: machine } = useKnownMachine(print?.machineId ?? '');
  const failure = errorOf(error);
  const title = print ? (print.held ? 'Print that held' : 'Failed print') : 'Print';
  const crumbs = print
    ? [{ label: print.machineName, href: `/floor/${print.machineId}` as const }]
    : [{ label: 'Prints', href: '/prints' as const }];
  return (
    <Page title={title} testID="print" crumbs={crumbs}>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {(!print || !machine) && !failure ? <Loading what="the print" /> : null}
      {print && machine ? <Shown print={print} machine={machine} mayDo={mayDo} parts={parts} /> : null}
    </Page>
  );
}

function Shown({ print, machine, mayDo, parts }: Props & { print: Print; machine: MachineOverview }) {
  const steady = useSteadyTap();
  const [withdraw, { isLoading, error }] = useWithdrawPrintMutation();
  const { held, failure, places } = print;
  const plate = { width: machine.plateWidth, depth: machine.plateDepth };
  const standing = print.withdrawnAt === null;
  const open = mayDo && standing;
  return (
    <>
      <Signal
        kind={held ? 'ready' : 'due'}
        word={held ? 'Held' : `Failed${failure ? `: ${FAILURE_WORDS[failure]}` : ''}`}
      />
      {standing ? null : (
        <Notice kind="due" title="Withdrawn">
          {`Entered by mistake, withdrawn on ${longDay(print.withdrawnAt!)}. It no longer counts.`}
        </Notice>
      )}
      <Columns
        left={
          <>
            <Facts rows={rowsOf(print, !open)} />
            {open ? (
              <Section title="DETAILS" testID="saw">
                <SayMore key={print.id} print={print} machine={machine} />
              </Section>
            ) : places.length > 0 ? (
              <NinePlaces plate={plate} taken={places} />
            ) : null}
            {open ? (
              <View style={{ alignSelf: 'flex-start', gap: 4 }}>
                <ActionButton
                  label="Withdraw: entered by mistake"
                  kind="quiet"
                  busy={isLoading}
                  onPress={steady(() => void withdraw({ id: print.id }))}
                  testID="withdraw-print"
                />
                {error ? (
                  <Notice kind="stop" title="Not withdrawn">
                    {errorOf(error)?.message ?? ''}
                  </Notice>
                ) : null}
              </View>
            ) : null}
          </>
        }
        right={parts(print)}
      />
    </>
  );
}

/** What was written down of it. @param all with what can be said later on: where nobody can change it here */
function rowsOf(print: Print, all: boolean): [name: string, value: string][] {
  const { endedAt, surfaceTag, side, material, grams, duration, personName, places, release, note } = print;
  const rows: [name: string, value: string | null][] = [
    ['Ended', `${longDay(endedAt)}, ${clockTime(endedAt)}`],
    ['Surface', surfaceTag ? `${surfaceTag}${side ? `, side ${side}` : ''}` : 'not recorded'],
    ['Material', material || 'not recorded'],
    ['Weight', grams === null ? null : `${Math.round(grams)} g`],
    ['Duration', duration === null ? null : timeTaken(Math.round(duration / 60) * 60)],
    ['Recorded by', personName ?? 'the machine'],
    ['Where', all ? placesInWords(places) || 'not recorded' : null],
    ['Came off', all ? (release ? RELEASE_WORDS[release] : 'not recorded') : null],
    ['Note', all ? note || 'none' : null],
  ];
  return rows.filter((row): row is [string, string] => row[1] !== null);
}
