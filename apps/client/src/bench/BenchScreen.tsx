import { againstSentence } from '@even-bed/words/readiness';
import { timeLeft } from '@even-bed/words/span';
import type { LevelCheckSummary, JobEntry, MachineOverview, Surface } from '@even-bed/contract';
import { stateBy, type AgainstPrinting, type Readiness } from '@even-bed/core/fleet/readiness';
import { dueState } from '@even-bed/core/rounds/nextDue';
import { Link, useRouter } from 'expo-router';
import type { ReactNode } from 'react';
import { Pressable, View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useJobsQuery } from '../care/jobApi';
import { jobSignal, jobStands } from '../care/jobWords';
import { useMachinesQuery } from '../fleet/fleetApi';
import { machineState, SIGNALS } from '../fleet/machineState';
import { useChecksQuery } from '../level/levelApi';
import { checkRecord } from '../level/levelWaits';
import { useLastBackupQuery } from '../people/shopApi';
import { ParkedHere } from '../state/ParkedHere';
import { parkedOf } from '../offline/waitingSlice';
import { useAppSelector } from '../state/store';
import { useSurfacesQuery } from '../surfaces/surfacesApi';
import { HOLD_NAMES } from '../surfaces/surfaceWords';
import { ActionButton } from '../ui/ActionButton';
import { Columns } from '../ui/Columns';
import { Empty } from '../ui/Empty';
import { clockTime, dayAndTime, weekdayTime } from '../ui/formatTime';
import { length } from '../ui/formatHeight';
import { currentManner } from '../ui/manner';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Icon } from '../ui/Icon';
import { Signal } from '../ui/Signal';
import { Tag } from '../ui/Tag';
import { TOUCH, useIsWide, usePalette } from '../ui/theme';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { TryFirst } from './TryFirst';
import { dueWords } from '../rounds/dueWords';

const OPEN_CHECKS = { state: 'open' } as const;
const OPEN_JOBS = { open: true };
const ON_HOLD = { state: 'on-hold', limit: 50 } as const;
const ASKED = { state: 'awaiting-work', limit: 50 } as const;

/** What my hands do now: checks under way, and what is due; with the floor beside it where there is room. */
export function BenchScreen({ floor }: { floor: ReactNode }) {
  const now = useNow();
  const wide = useIsWide();
  const machines = useMachinesQuery();
  const checks = useChecksQuery(OPEN_CHECKS);
  const jobs = useJobsQuery(OPEN_JOBS);
  const held = useSurfacesQuery(ON_HOLD);
  const asked = useSurfacesQuery(ASKED);
  // Lists that come one after the other push each other about: they are drawn together.
  const coming = [machines, checks, jobs, held, asked].some(({ isLoading }) => isLoading);
  const error = errorOf(machines.error);
  return (
    <Page
      title="Bench"
      state={
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
          <Words size="small" tone="steel">
            {weekdayTime(now)}
          </Words>
          {wide ? null : <WhoIsHere />}
        </View>
      }
      testID="bench"
    >
      <Columns
        share={floor ? 1.5 : 1}
        left={
          <>
            <Damaged />
            <ParkedHere />
            <TryFirst />
            {/* What was begun here needs no server. */}
            <InHand checks={coming ? [] : (checks.data ?? [])} jobs={coming ? [] : (jobs.data ?? [])} now={now} />
            {coming ? (
              <Loading what="what is due" />
            ) : (
              <>
                <Holds surfaces={held.data ?? []} now={now} />
                {machines.data ? <Due machines={machines.data} now={now} /> : null}
                <Asked surfaces={asked.data ?? []} />
                {error ? <Failed message={error.message} onRetry={machines.refetch} /> : null}
                {floor ? <AtHand /> : null}
              </>
            )}
          </>
        }
        right={floor ?? (coming ? null : <AtHand />)}
      />
    </Page>
  );
}

/** A lead is told when the shop's file is damaged, and what helps. */
function Damaged() {
  const isLead = useAppSelector((state) => state.people.person?.role === 'lead');
  const { data } = useLastBackupQuery(undefined, { skip: !isLead });
  if (!data?.damage) return null;
  return (
    <Notice kind="stop" title="The shop’s records are damaged" testID="damaged">
      {data.damage}
    </Notice>
  );
}

/** What is had without a record, and the ways that no room has. */
function AtHand() {
  return (
    <Section title="AT HAND">
      <Row href="/prints" testID="to-prints">
        <Words bold>Prints</Words>
        <Words size="small" tone="steel">
          All of them, typed in bulk, or read in from a list
        </Words>
      </Row>
      <Row href="/jobs" testID="to-jobs">
        <Words bold>Jobs</Words>
        <Words size="small" tone="steel">
          Step by step: fit, laminate, mount, cut, check, replace
        </Words>
      </Row>
      <Row href="/tools" testID="to-tools">
        <Words bold>Tools</Words>
        <Words size="small" tone="steel">
          The sums without a record: stack, blanks, soak, spacers and more
        </Words>
      </Row>
      <Row href="/scan" testID="bench-scan">
        <Words bold>Scan a tag</Words>
        <Words size="small" tone="steel">
          From the label on a sheet or a machine to its page
        </Words>
      </Row>
    </Section>
  );
}

/** Surfaces on hold, the next to be free first. */
function Holds({ surfaces, now }: { surfaces: readonly Surface[]; now: number }) {
  const held = surfaces
    .flatMap((surface) =>
      surface.state.hold && surface.state.hold.until > now ? [{ surface, hold: surface.state.hold }] : [],
    )
    .sort((p, q) => p.hold.until - q.hold.until);
  if (held.length === 0) return null;
  return (
    <Section title="COMING OFF HOLD" testID="holds">
      {held.map(({ surface, hold }) => (
        <Row
          key={surface.id}
          href={`/rack/${surface.id}`}
          lead={<Signal kind="hold" />}
          end={<Words bold>{hold.until - now < 86_400_000 ? clockTime(hold.until) : dayAndTime(hold.until)}</Words>}
          testID={`hold-${surface.tag}`}
        >
          <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
            <Tag>{surface.tag}</Tag>
            <Words bold>{surface.machineName ?? surface.kind.name}</Words>
          </View>
          <Words size="small" tone="steel">
            {`${hold.reason || HOLD_NAMES[hold.kind]}, ${timeLeft(hold.until - now)} left`}
          </Words>
        </Row>
      ))}
    </Section>
  );
}

/** On a phone the way to the person, and through it to the settings, begins here. */
function WhoIsHere() {
  const palette = usePalette();
  const person = useAppSelector((state) => state.people.person);
  return (
    <Link href="/me" asChild>
      <Pressable
        style={{ flexDirection: 'row', alignItems: 'center', gap: 6, minHeight: TOUCH, paddingLeft: 8 }}
        testID="to-me"
      >
        <Icon name="person" size={20} color={palette.steel} />
        <Words size="small" bold>
          {person?.name.split(' ')[0] ?? ''}
        </Words>
      </Pressable>
    </Link>
  );
}

/** Checks begun here, and those that other devices have begun. */
function InHand({
  checks,
  jobs,
  now,
}: {
  checks: readonly LevelCheckSummary[];
  jobs: readonly JobEntry[];
  now: number;
}) {
  const drafts = useAppSelector((state) => state.level.drafts);
  const waiting = useAppSelector((state) => state.waiting.list);
  const here = Object.values(drafts).sort((p, q) => q.startedAt - p.startedAt);
  const elsewhere = checks.filter(({ id }) => !drafts[id]);
  if (here.length + elsewhere.length + jobs.length === 0) return null;
  return (
    <Section title="IN HAND" testID="in-hand">
      {jobs.map((job) => {
        const { kind, waits } = jobSignal(job, now);
        return (
          <Row
            key={job.id}
            href={`/jobs/${job.id}`}
            lead={<Signal kind={kind} />}
            end={<Words bold>{waits ? dayAndTime(job.waitUntil!) : `${job.step}/${job.steps}`}</Words>}
            testID={`in-hand-${job.machineName}-${job.title}`}
          >
            <Words bold>{`${job.machineName} · ${job.title.toLowerCase()}`}</Words>
            <Words size="small" tone="steel">
              {jobStands(job, waits)}
            </Words>
          </Row>
        );
      })}
      {here.map(({ id, machineName, rounds, stage, startedAt, end }) => (
        <Row
          key={id}
          href={`/level/${id}`}
          lead={<Signal kind={parkedOf(waiting, checkRecord(id)) ? 'stop' : 'hold'} />}
          end={
            <Words size="small" tone="steel">
              {dayAndTime(startedAt)}
            </Words>
          }
          testID={`draft-${machineName}`}
        >
          <Words bold>{`${machineName} · level check`}</Words>
          <Words size="small" tone="steel">
            {parkedOf(waiting, checkRecord(id))
              ? 'The server refused a part of it'
              : end
                ? 'Ended, being sent'
                : stageWords(stage, rounds.length)}
          </Words>
        </Row>
      ))}
      {elsewhere.map(({ id, machineName, startedAt, rounds }) => (
        <Row
          key={id}
          href={`/level/${id}`}
          lead={<Signal kind="hold" />}
          end={
            <Words size="small" tone="steel">
              {dayAndTime(startedAt)}
            </Words>
          }
        >
          <Words bold>{`${machineName} · level check`}</Words>
          <Words
            size="small"
            tone="steel"
          >{`Begun on another device, ${rounds} ${rounds === 1 ? 'reading' : 'readings'}`}</Words>
        </Row>
      ))}
    </Section>
  );
}

function stageWords(stage: 'reading' | 'turning', rounds: number): string {
  if (rounds === 0) return 'Waiting for its heights';
  return stage === 'turning'
    ? `Reading ${rounds} is there: turn, then measure again`
    : `Turns made: take reading ${rounds + 1}`;
}

function Due({ machines, now }: { machines: MachineOverview[]; now: number }) {
  const router = useRouter();
  const isLead = useAppSelector((state) => state.people.person?.role === 'lead');
  if (machines.length === 0) {
    return (
      <Empty title="There is no machine yet.">
        <Words tone="steel">Add the first one: its plate, its adjusters and where they stand. Then level it.</Words>
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="Add the first machine"
            kind="main"
            icon="add"
            onPress={() => router.push('/floor/new')}
            testID="add-first"
          />
        </View>
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="Read a fleet in from a list"
            icon="file"
            onPress={() => router.push('/floor/list')}
            testID="fleet-list"
          />
        </View>
      </Empty>
    );
  }
  // What is held, checked or worked on stands in hand above; what waits for work stands below, by its tag.
  const rows = machines
    .flatMap((machine) => {
      const against = machineState(machine, now, false).readiness.against.filter(
        ({ code }) => !ELSEWHERE.includes(code),
      );
      const soon = machine.rule && dueState({ ...machine.rule, dueAt: machine.rule.nextDueAt, now }) === 'soon';
      // When a level is due stands at the right.
      const said = against.filter(({ code }) => code !== 'level-due');
      return against.length > 0 || soon ? [{ machine, against, said, state: stateBy(against[0]) }] : [];
    })
    .sort((p, q) => ORDER.indexOf(p.state) - ORDER.indexOf(q.state) || dueAt(p.machine) - dueAt(q.machine));
  const ruled = machines.filter(({ rule }) => rule !== null).sort((p, q) => dueAt(p) - dueAt(q));
  const [next] = ruled;
  const later = ruled.filter(
    (machine) => dueAt(machine) - now < WEEK_MS && rows.every((row) => row.machine.id !== machine.id),
  );
  return (
    <Section title="NEXT FOR YOUR HANDS" testID="due-list">
      {rows.length === 0 ? (
        <Words tone="steel">
          {next
            ? `Nothing is due. Next: ${next.name}, ${dueWords(next.rule!, now)}.`
            : isLead
              ? 'No machine has a rule yet. Set one on its page.'
              : 'No machine has a rule yet: a lead sets one on its page.'}
        </Words>
      ) : (
        rows.map(({ machine, against, said, state }) => (
          <Row
            key={machine.id}
            href={`/floor/${machine.id}`}
            lead={<Signal kind={SIGNALS[state]} />}
            end={
              machine.rule ? (
                <Words size="small" bold={against.some(({ code }) => code === 'level-due')}>
                  {dueWords(machine.rule, now)}
                </Words>
              ) : undefined
            }
            testID={`due-${machine.name}`}
          >
            <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
              <Words bold>{machine.name}</Words>
              {machine.shelf ? <Tag>{machine.shelf}</Tag> : null}
            </View>
            <Words size="small" tone="steel">
              {said.length > 0
                ? said.map((one) => againstSentence(one, currentManner(), now)).join(' ')
                : machine.lastCheck
                  ? `Level check, last range ${length(machine.lastCheck.after)}`
                  : 'Level check, never done'}
            </Words>
          </Row>
        ))
      )}
      {rows.length > 0 && later.length > 0 ? (
        <Words size="small" tone="steel" testID="later">
          {`Later this week: ${later.map(({ name, rule }) => `${name}, ${dueWords(rule!, now)}`).join('; ')}.`}
        </Words>
      ) : null}
    </Section>
  );
}

/** What a technician plans by. */
const WEEK_MS = 7 * 86_400_000;
const ELSEWHERE: readonly AgainstPrinting['code'][] = ['held', 'job', 'check', 'asked'];
const dueAt = ({ rule }: MachineOverview) => rule?.nextDueAt ?? Infinity;
/** What must not be printed on first, then what somebody should look at, then what comes up. */
const ORDER: readonly Readiness['state'][] = ['not', 'look', 'busy', 'ready'];

/** Surfaces that wait for work somebody asked for, until it is done or withdrawn. */
function Asked({ surfaces }: { surfaces: readonly Surface[] }) {
  if (surfaces.length === 0) return null;
  return (
    <Section title="ASKED FOR" testID="asked">
      {surfaces.map((surface) => (
        <Row key={surface.id} href={`/rack/${surface.id}`} lead={<Signal kind="due" />} testID={`asked-${surface.tag}`}>
          <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
            <Tag>{surface.tag}</Tag>
            <Words bold>{surface.state.awaiting ?? ''}</Words>
          </View>
          <Words size="small" tone="steel">
            {surface.machineName
              ? `${surface.kind.name}, on ${surface.machineName}`
              : `${surface.kind.name}, ${surface.state.where.kind === 'rack' ? surface.state.where.place : ''}`}
          </Words>
        </Row>
      ))}
    </Section>
  );
}
