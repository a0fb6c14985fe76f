import { jobOperations } from '@even-bed/contract/care/jobOperations';
import type { Job, JobLayer, JobStart, MachineOverview, ProcedureRecord } from '@even-bed/contract';
import { readyAt } from '@even-bed/core/care/runProcedure';
import { carryList, type CarryList } from '@even-bed/core/care/together';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useEffect, useEffectEvent, useState, useMemo } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useMachinesQuery } from '../fleet/fleetApi';
import { later, useAppDispatch, useAppSelector } from '../state/store';
import { useStackQuery } from '../surfaces/surfacesApi';
import { ActionButton } from '../ui/ActionButton';
import { Facts } from '../ui/Facts';
import { dayAndTime, weekdayTime } from '../ui/formatTime';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { SPACE } from '../ui/theme';
import { TickRow } from '../ui/TickRow';
import { rightNow, useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { useProcedureQuery, useTaughtQuery } from './jobApi';
import { jobBegun } from './jobsSlice';
import { PartPick, type PickedPart } from './PartPick';
import { SchoolPart } from './SchoolPart';
import { TaughtJobs } from './TaughtJobs';
import { proseOf } from '../ui/prose';

/** Before a job: the machine, the schools with the hour at which each is done, the surfaces, and what is needed. */
export function StartJobScreen() {
  const router = useRouter();
  const { procedure: id } = useLocalSearchParams<{ procedure?: string }>();
  const { data: procedure, error, refetch } = useProcedureQuery({ procedure: id ?? '' }, { skip: !id });
  const failure = errorOf(error);
  const shown = useMemo(() => proseOf(procedure), [procedure]);
  if (shown) return <Start procedure={shown} />;
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
  const { data: machines = [], isLoading } = useMachinesQuery();
  const { doc } = procedure;
  const [machineIds, setMachineIds] = useState<string[]>(named === undefined ? [] : [named]);
  const [many, setMany] = useState(false);
  const [choices, setChoices] = useState<Record<string, string>>(() =>
    Object.fromEntries(doc.choices.map(({ id, usual }) => [id, usual])),
  );
  const [picked, setPicked] = useState<Record<string, PickedPart>>({});
  const [stacks, setStacks] = useState<Record<string, JobLayer[]>>({});
  const [asked, setAsked] = useState(false);
  const fitting = machines.filter(({ family }) => doc.family === 'any' || doc.family === family);
  const taken = fitting.filter(({ id }) => machineIds.includes(id));
  const ready = readyAt({ procedure: doc, choices }, now);
  const partKey = (machineId: string, partId: string) => `${machineId} ${partId}`;
  const open = taken.flatMap(({ id }) => doc.parts.filter((part) => !picked[partKey(id, part.id)]));
  const begin = () => {
    setAsked(true);
    if (taken.length === 0 || open.length > 0) return;
    const together = taken.length > 1 ? uuid() : null;
    const ids = taken.map((machine) => beginOn(machine, together));
    router.replace(`/jobs/${ids[0]!}`);
  };
  const beginOn = (machine: MachineOverview, together: string | null): string => {
    const id = uuid();
    const at = rightNow();
    const own = doc.parts.flatMap((part) => {
      const one = picked[partKey(machine.id, part.id)];
      return one?.surfaceId ? [[part.id, one] as const] : [];
    });
    const parts = Object.fromEntries(own.map(([part, one]) => [part, one.surfaceId!]));
    const sides = Object.fromEntries(own.map(([part, one]) => [part, one.side]));
    const body: JobStart = {
      procedureId: procedure.id,
      version: procedure.version,
      machineId: machine.id,
      choices,
      parts,
      sides,
      together,
      at,
      ...(procedure.edition === null ? {} : { edition: procedure.edition }),
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
      steps: doc.phases?.length ?? doc.steps.length,
      together,
      procedure: doc,
      choices,
      parts,
      stackBefore: stacks[machine.id] ?? [],
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
    return id;
  };
  const toggle = (id: string) =>
    setMachineIds((old) => (old.includes(id) ? old.filter((one) => one !== id) : [...old, id]));
  return (
    <Page
      title={doc.title}
      crumbs={[{ label: 'Jobs', href: '/jobs' }]}
      actions={
        me?.role === 'looker' ? undefined : (
          <ActionButton
            label={taken.length > 1 ? `Begin on ${taken.length} machines` : 'Begin'}
            kind="main"
            grow
            disabled={taken.length === 0}
            onPress={begin}
            testID="begin-job"
          />
        )
      }
      testID="start-job"
    >
      <Words>{doc.about}</Words>
      {isLoading ? (
        <Loading what="the machines" />
      ) : (
        <>
          {many ? (
            <Section title="ON WHICH MACHINES" testID="job-machines">
              {fitting.map(({ id, name, areaName }) => (
                <TickRow
                  key={id}
                  words={`${name}, ${areaName}`}
                  ticked={machineIds.includes(id)}
                  onPress={() => toggle(id)}
                  testID={`take-${name}`}
                />
              ))}
            </Section>
          ) : (
            <View style={{ gap: 4 }}>
              <Pick
                label="On which machine"
                options={fitting.map(({ id, name }) => ({ value: id, label: name }))}
                value={taken[0]?.id ?? null}
                onChange={(id) => setMachineIds([id])}
                testID="job-machine"
              />
              <View style={{ alignSelf: 'flex-start' }}>
                <ActionButton
                  label="Several machines at once"
                  kind="quiet"
                  icon="add"
                  onPress={() => setMany(true)}
                  testID="many-machines"
                />
              </View>
            </View>
          )}
          {taken.map((machine) => (
            <View key={machine.id} style={{ gap: SPACE.m }}>
              <StackKept
                machineId={machine.id}
                onStack={(layers) => setStacks((old) => ({ ...old, [machine.id]: layers }))}
              />
              <Collision machine={machine} ready={ready} now={now} />
              {doc.parts.length === 0 ? null : (
                <Section title={taken.length > 1 ? machine.name.toUpperCase() : 'PARTS'}>
                  {doc.parts.map((part) => {
                    const key = partKey(machine.id, part.id);
                    return (
                      <PartPick
                        key={key}
                        procedure={doc}
                        part={part}
                        machine={machine}
                        value={picked[key]}
                        others={taken.filter(({ id }) => id !== machine.id && !picked[partKey(id, part.id)])}
                        onChangeOther={(id, one) => setPicked((old) => ({ ...old, [partKey(id, part.id)]: one }))}
                        taken={taken.flatMap(({ id }) =>
                          id === machine.id ? [] : (picked[partKey(id, part.id)]?.surfaceId ?? []),
                        )}
                        error={
                          asked && !picked[key]
                            ? 'Choose one that fits, add it, or say that it is not followed.'
                            : undefined
                        }
                        onChange={(one) => setPicked((old) => ({ ...old, [key]: one }))}
                        testID={taken.length > 1 ? `part-${machine.name}-${part.id}` : `part-${part.id}`}
                      />
                    );
                  })}
                </Section>
              )}
              <TaughtHere machineId={machine.id} procedureId={procedure.id} />
            </View>
          ))}
          {doc.choices
            .filter(({ only }) => !only || only.is.includes(choices[only.choice]!))
            .map((choice) => (
              <SchoolPart
                key={choice.id}
                choice={choice}
                value={choices[choice.id]!}
                onChange={(option) => setChoices((old) => ({ ...old, [choice.id]: option }))}
                ready={
                  choice.options.some(({ hours }) => hours !== undefined)
                    ? (option) =>
                        weekdayTime(readyAt({ procedure: doc, choices: { ...choices, [choice.id]: option } }, now))
                    : undefined
                }
              />
            ))}
          <Words bold testID="ready-at">{`Done about ${dayAndTime(ready)}, if nothing comes between.`}</Words>
          <CarryPart
            list={carryList(
              doc,
              taken.map(({ id, name }) => ({
                machine: name,
                parts: Object.fromEntries(
                  doc.parts.flatMap((part) => {
                    const one = picked[partKey(id, part.id)];
                    return one?.surfaceId ? [[part.id, one]] : [];
                  }),
                ),
              })),
            )}
            minutes={doc.minutes * Math.max(1, taken.length)}
          />
        </>
      )}
    </Page>
  );
}

/** What the machine's stack is when the job begins: what its sums start from. */
function StackKept({ machineId, onStack }: { machineId: string; onStack: (layers: JobLayer[]) => void }) {
  const { data: stack } = useStackQuery({ id: machineId });
  const keep = useEffectEvent(onStack);
  useEffect(() => {
    if (stack) keep(stack.layers.filter(({ slot }) => slot !== 'film'));
  }, [stack]);
  return null;
}

/** What the same job taught on another machine of the model. */
function TaughtHere({ machineId, procedureId }: { machineId: string; procedureId: string }) {
  const { data } = useTaughtQuery({ id: machineId });
  const jobs = data?.jobs.filter((job) => job.procedureId === procedureId) ?? [];
  if (jobs.length === 0) return null;
  return (
    <Section title="LEARNED ON OTHER MACHINES OF THIS MODEL" testID="taught-here">
      <TaughtJobs jobs={jobs} />
    </Section>
  );
}

/** What to buy, fetch and lay ready before it begins. */
function CarryPart({ list, minutes }: { list: CarryList; minutes: number }) {
  const times = (name: string, count: number) => (count > 1 ? `${count} × ${name}` : name);
  return (
    <Section title="LAY READY" testID="carry">
      <Facts
        rows={[
          ['Tools', list.tools.join(', ')],
          ['Materials', list.materials.map(({ name, count }) => times(name, Math.max(1, count))).join(', ')],
          ...list.parts.map(({ machine, part, tag, place }): [string, string] => [
            `${part}, ${machine}`,
            tag === null ? 'any' : `${tag}${place ? `, from ${place}` : ''}`,
          ]),
          ['Hands’ work', `about ${minutes} min`],
        ]}
      />
    </Section>
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
