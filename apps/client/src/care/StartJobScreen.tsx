import { jobOperations } from '@even-bed/contract/care/jobOperations';
import type { Job, JobStart, MachineOverview, ProcedureRecord } from '@even-bed/contract';
import type { Side } from '@even-bed/core';
import { readyAt } from '@even-bed/core/care/runProcedure';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useMachinesQuery } from '../fleet/fleetApi';
import { later, useAppDispatch, useAppSelector } from '../state/store';
import { useSurfacesQuery, useStackQuery } from '../surfaces/surfacesApi';
import { sideWords } from '../surfaces/surfaceWords';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Facts } from '../ui/Facts';
import { dayAndTime, weekdayTime } from '../ui/formatTime';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { rightNow, useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { useProcedureQuery } from './jobApi';
import { jobBegun } from './jobsSlice';
import { SchoolPart } from './SchoolPart';

/** Before a job: the machine, the schools with the hour at which each is done, the surfaces, and what is needed. */
export function StartJobScreen() {
  const router = useRouter();
  const { procedure: id } = useLocalSearchParams<{ procedure?: string }>();
  const { data: procedure, error, refetch } = useProcedureQuery({ procedure: id ?? '' }, { skip: !id });
  const failure = errorOf(error);
  if (procedure) return <Start procedure={procedure} />;
  return (
    <Page title="A job" crumbs={[{ label: 'Jobs', href: '/jobs' }]}>
      {failure ? (
        <Failed message={failure.message} onRetry={refetch} />
      ) : id ? (
        <Loading what="the job" />
      ) : (
        <Words>Which job it is to be is picked from the list.</Words>
      )}
      {failure || !id ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton label="To the jobs" kind="main" onPress={() => router.push('/jobs')} testID="to-jobs" />
        </View>
      ) : null}
    </Page>
  );
}

function Start({ procedure }: { procedure: ProcedureRecord }) {
  const now = useNow();
  const router = useRouter();
  const dispatch = useAppDispatch();
  const me = useAppSelector((state) => state.people.person);
  const { machine: named } = useLocalSearchParams<{ machine?: string }>();
  const { data: machines = [] } = useMachinesQuery();
  const { doc } = procedure;
  const [machineId, setMachineId] = useState<string | null>(named ?? null);
  const [choices, setChoices] = useState<Record<string, string>>(() =>
    Object.fromEntries(doc.choices.map(({ id, usual }) => [id, usual])),
  );
  const [parts, setParts] = useState<Record<string, string>>({});
  const [sides, setSides] = useState<Record<string, Side>>({});
  const fitting = machines.filter(({ family }) => doc.family === 'any' || doc.family === family);
  const machine = fitting.find((known) => known.id === machineId);
  const { currentData: stack } = useStackQuery({ id: machineId ?? '' }, { skip: machineId === null });
  const ready = readyAt({ procedure: doc, choices }, now);
  const begin = () => {
    if (!machine) return;
    const id = uuid();
    const at = rightNow();
    const body: JobStart = {
      procedureId: procedure.id,
      version: procedure.version,
      machineId: machine.id,
      choices,
      parts,
      sides,
      at,
    };
    const job: Job = {
      id,
      title: doc.title,
      machineId: machine.id,
      machineName: machine.name,
      startedAt: at,
      holderName: me?.name ?? null,
      stepTitle: null,
      enteredAt: at,
      waitUntil: null,
      ended: null,
      endedAt: null,
      step: 1,
      steps: doc.steps.length,
      procedure: doc,
      choices,
      parts,
      stackBefore: (stack?.layers ?? []).filter(({ slot }) => slot !== 'film'),
      events: [],
    };
    dispatch(jobBegun(job));
    later(jobOperations.startJob, {
      params: { id },
      body,
      key: id,
      what: `${machine.name}: ${doc.title}`,
      at: `/jobs/${id}`,
    });
    router.replace(`/jobs/${id}`);
  };
  return (
    <Page
      title={doc.title}
      crumbs={[{ label: 'Jobs', href: '/jobs' }]}
      actions={
        me?.role === 'looker' ? undefined : (
          <ActionButton label="Begin" kind="main" grow disabled={!machine} onPress={begin} testID="begin-job" />
        )
      }
      testID="start-job"
    >
      <Words>{doc.about}</Words>
      <Pick
        label="On which machine"
        options={fitting.map(({ id, name }) => ({ value: id, label: name }))}
        value={machine?.id ?? null}
        onChange={setMachineId}
        testID="job-machine"
      />
      {doc.choices.map((choice) => (
        <SchoolPart
          key={choice.id}
          choice={choice}
          value={choices[choice.id]!}
          onChange={(option) => setChoices((old) => ({ ...old, [choice.id]: option }))}
          ready={
            choice.options.some(({ hours }) => hours !== undefined)
              ? (option) => weekdayTime(readyAt({ procedure: doc, choices: { ...choices, [choice.id]: option } }, now))
              : undefined
          }
        />
      ))}
      <Words bold testID="ready-at">{`Done about ${dayAndTime(ready)}, if nothing comes between.`}</Words>
      {machine ? <Collision machine={machine} ready={ready} now={now} /> : null}
      {machine
        ? doc.parts.map((part) => (
            <PartPick
              key={part.id}
              part={part}
              machine={machine}
              value={parts[part.id] ?? null}
              side={sides[part.id] ?? 'A'}
              onSide={(side) => setSides((old) => ({ ...old, [part.id]: side }))}
              onChange={(surfaceId) =>
                setParts((old) =>
                  surfaceId === ''
                    ? Object.fromEntries(Object.entries(old).filter(([id]) => id !== part.id))
                    : { ...old, [part.id]: surfaceId },
                )
              }
            />
          ))
        : null}
      <Section title="LAY READY">
        <Facts
          rows={[
            ['Tools', doc.tools.join(', ')],
            ['Materials', doc.materials.join(', ')],
            ['Hands’ work', `about ${doc.minutes} min, ${doc.steps.length} steps with every way round`],
          ]}
        />
      </Section>
    </Page>
  );
}

/** Warns when the machine is wanted before the job is done. */
function Collision({ machine, ready, now }: { machine: MachineOverview; ready: number; now: number }) {
  const due = machine.rule?.nextDueAt;
  if (due === undefined || due < now || due >= ready) return null;
  return (
    <Notice kind="due" title="It is wanted before" testID="collision">
      {`${machine.name} has a level check due ${dayAndTime(due)}, before this is done. Begin later, choose a shorter wait, or move the check.`}
    </Notice>
  );
}

function PartPick({
  part,
  machine,
  value,
  onChange,
  side,
  onSide,
}: {
  part: ProcedureRecord['doc']['parts'][number];
  machine: MachineOverview;
  value: string | null;
  onChange: (surfaceId: string) => void;
  /** Which side goes up, where it has two. */
  side: Side;
  onSide: (side: Side) => void;
}) {
  const { data: stack } = useStackQuery({ id: machine.id });
  const { data: racked = [] } = useSurfacesQuery({ state: 'in-rack', limit: 200 }, { skip: part.from !== 'rack' });
  const lying = (stack?.layers ?? []).flatMap(({ surfaceId, tag, name }) =>
    surfaceId && tag ? [{ value: surfaceId, label: `${tag} ${name}` }] : [],
  );
  const chosen = part.from === 'rack' ? racked.find(({ id }) => id === value) : undefined;
  const options =
    part.from === 'machine'
      ? lying
      : racked
          .filter(({ kind }) => part.groups.includes(kind.group))
          .map(({ id, tag, kind }) => ({ value: id, label: `${tag} ${kind.name}` }));
  return (
    <View>
      <Pick
        label={part.label}
        options={[{ value: '', label: 'Not followed' }, ...options]}
        value={value}
        placeholder={options.length === 0 ? 'None is here' : 'Not followed'}
        onChange={onChange}
        testID={`part-${part.id}`}
      />
      {chosen && chosen.kind.sides.length > 1 ? (
        <Choice
          label={`Side of ${chosen.tag} that goes up`}
          options={(['A', 'B'] as const).map((value) => ({ value, label: sideWords(value, chosen.kind) }))}
          value={side}
          onChange={onSide}
        />
      ) : null}
    </View>
  );
}
