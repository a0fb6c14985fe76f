import type { BadLine, ListPreview, PrintList } from '@even-bed/contract';
import {
  NEEDED_COLUMNS,
  PRINT_COLUMNS,
  type ColumnMatch,
  type GuessedMatch,
  type PrintColumn,
} from '@even-bed/core/wear/readPrintLine';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useRef, useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { api } from '../api/api';
import { errorOf } from '../api/errorOf';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { dayAndTime } from '../ui/formatTime';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { pickFile } from '../ui/pickFile';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import {
  useDropListMutation,
  useFixLineMutation,
  usePreviewListMutation,
  usePrintListQuery,
  useSendListMutation,
  useTakeListMutation,
} from './wearApi';

const CRUMBS = [{ label: 'Prints', href: '/prints' as const }];
const COLUMN_NAMES: Record<PrintColumn, string> = {
  machine: 'Machine (name or tag)',
  ended: 'When it ended',
  held: 'Whether it held',
  material: 'Material',
  grams: 'Weight',
  duration: 'How long it took',
  failure: 'How it failed',
  release: 'How it came off',
  note: 'Note',
};
const NONE = 'none';

/** Reading a list of prints in: the file, its columns, a look at what would become of it, and then the good lines. */
export function PrintListScreen() {
  const router = useRouter();
  const { id } = useLocalSearchParams<{ id?: string }>();
  const {
    data: list,
    error,
    refetch,
  } = usePrintListQuery({ id: id ?? '' }, { skip: !id, refetchOnMountOrArgChange: true });
  const [send, sending] = useSendListMutation();
  const failure = errorOf(sending.error ?? error);
  if (id && list) return <ListView key={list.id} list={list} />;
  const choose = async () => {
    const file = await pickFile('.csv,.txt,.tsv,text/csv,text/plain');
    if (!file) return;
    const result = await send({ id: uuid(), file, name: file.name.slice(0, 120) });
    if (result.data) router.setParams({ id: result.data.id });
  };
  return (
    <Page
      title="Read a list in"
      crumbs={CRUMBS}
      testID="print-list"
      actions={
        <ActionButton
          label="Choose a file"
          icon="file"
          kind="main"
          grow
          busy={sending.isLoading}
          onPress={() => void choose()}
          testID="choose-list"
        />
      }
    >
      <Words>
        A table with one print a line, saved as CSV: comma, semicolon or tab. Its first line names the columns; which
        one holds what is said in the next step. Nothing is taken before you have seen it.
      </Words>
      {failure ? (
        sending.error ? (
          <Notice kind="stop" title="This file was not read" testID="list-refused">
            {failure.message}
          </Notice>
        ) : (
          <Failed message={failure.message} onRetry={refetch} />
        )
      ) : null}
      {id && !failure ? <Loading what="the list" /> : null}
    </Page>
  );
}

function ListView({ list }: { list: PrintList }) {
  const router = useRouter();
  const dispatch = useAppDispatch();
  const [guessed, setMatch] = useState<GuessedMatch>(list.match);
  const { dayFirst } = guessed;
  /** Null while it is open which part of a date is the day. */
  const match: ColumnMatch | null = dayFirst === null ? null : { ...guessed, dayFirst };
  const [preview, setPreview] = useState<ListPreview | null>(null);
  const [progress, setProgress] = useState<{ taken: number; known: number; running: boolean } | null>(null);
  const stop = useRef(false);
  const [look, looking] = usePreviewListMutation();
  const [take] = useTakeListMutation();
  const [drop] = useDropListMutation();
  const [takeFailure, setTakeFailure] = useState<string | null>(null);
  const failure = errorOf(looking.error);
  const change = (part: Partial<GuessedMatch>) => {
    setMatch({ ...guessed, ...part });
    setPreview(null);
  };
  const setColumn = (column: PrintColumn, value: string) => {
    const columns = { ...guessed.columns };
    if (value === NONE) delete columns[column];
    else columns[column] = Number(value);
    change({ columns });
  };
  const show = async () => {
    if (!match) return;
    const result = await look({ id: list.id, body: { match } });
    setPreview(result.data ?? null);
  };
  const takeAll = async () => {
    if (!match) return;
    stop.current = false;
    setTakeFailure(null);
    const sum = { taken: 0, known: 0 };
    for (let from: number | null = 0; from !== null && !stop.current;) {
      setProgress({ ...sum, running: true });
      const result: Awaited<ReturnType<typeof take>> = await take({ id: list.id, body: { match, from } });
      if (result.error || !result.data) {
        setTakeFailure(errorOf(result.error)?.message ?? 'The server does not answer.');
        break;
      }
      sum.taken += result.data.taken;
      sum.known += result.data.known;
      from = result.data.next;
    }
    setProgress({ ...sum, running: false });
    dispatch(api.util.invalidateTags(['Print', 'Surface', 'Book', 'List']));
    await show();
  };
  return (
    <Page
      title={list.name}
      crumbs={CRUMBS}
      testID="print-list"
      actions={
        preview && preview.good > 0 ? (
          progress?.running ? (
            <ActionButton label="Stop here" grow onPress={() => (stop.current = true)} testID="list-stop" />
          ) : (
            <ActionButton
              label={`Take ${preview.good} ${preview.good === 1 ? 'print' : 'prints'}`}
              kind="main"
              grow
              onPress={() => void takeAll()}
              testID="list-take"
            />
          )
        ) : (
          <ActionButton
            label={preview ? 'Look again' : 'Look at it'}
            kind={preview ? 'plain' : 'main'}
            grow
            busy={looking.isLoading}
            disabled={match === null}
            onPress={() => void show()}
            testID="list-look"
          />
        )
      }
    >
      <Words tone="steel">{`${list.lines} ${list.lines === 1 ? 'line' : 'lines'}${list.taken > 0 ? `, ${list.taken} taken before` : ''}`}</Words>
      {match === null ? (
        <Notice kind="due" title="Day or month first?" testID="list-dates">
          No date of this list says which part is the day. Say below what 3/4/2026 is in it.
        </Notice>
      ) : null}
      {progress ? (
        <Notice
          kind={progress.running ? 'hold' : 'ready'}
          title={
            progress.running
              ? `${progress.taken} taken …`
              : `${progress.taken} ${progress.taken === 1 ? 'print' : 'prints'} taken`
          }
          testID="list-progress"
        >
          {progress.known > 0 ? `${progress.known} were here already.` : undefined}
        </Notice>
      ) : null}
      {takeFailure ? (
        <Notice
          kind="stop"
          title="It stopped"
        >{`${takeFailure} What was taken is there once; go on when you like.`}</Notice>
      ) : null}
      {failure ? (
        <Notice kind="stop" title="Look at the columns">
          {Object.values(failure.fields)[0] ?? failure.message}
        </Notice>
      ) : null}
      {preview && match ? <Report list={list} match={match} preview={preview} onFixed={() => void show()} /> : null}
      <Section title="WHICH COLUMN HOLDS WHAT" testID="list-columns">
        {PRINT_COLUMNS.map((column) => (
          <Pick
            key={column}
            label={`${COLUMN_NAMES[column]}${NEEDED_COLUMNS.includes(column) ? ', needed' : ''}`}
            value={guessed.columns[column] === undefined ? NONE : String(guessed.columns[column])}
            options={[
              { value: NONE, label: 'not in this list' },
              ...list.heads.map((head, i) => ({
                value: String(i),
                label: sampleWords(
                  head,
                  list.sample.map((cells) => cells[i] ?? ''),
                ),
              })),
            ]}
            onChange={(value) => setColumn(column, value)}
            testID={`column-${column}`}
          />
        ))}
        <Choice
          label="3/4/2026 is"
          options={[
            { value: 'day', label: '3 April' },
            { value: 'month', label: 'March 4' },
          ]}
          value={dayFirst === null ? null : dayFirst ? 'day' : 'month'}
          onChange={(value) => change({ dayFirst: value === 'day' })}
          {...(dayFirst === null ? { error: 'The dates of this list can be read either way: say which.' } : {})}
          testID="day-first"
        />
        {guessed.columns.duration === undefined ? null : (
          <Choice
            label="A bare number of its duration is in"
            options={[
              { value: 's', label: 'seconds' },
              { value: 'min', label: 'minutes' },
              { value: 'h', label: 'hours' },
            ]}
            value={guessed.durationUnit}
            onChange={(durationUnit) => change({ durationUnit })}
          />
        )}
        {guessed.columns.grams === undefined ? null : (
          <Choice
            label="A bare weight is in"
            options={[
              { value: 'g', label: 'grams' },
              { value: 'kg', label: 'kilograms' },
            ]}
            value={guessed.weightUnit ?? 'g'}
            onChange={(weightUnit) => change({ weightUnit })}
          />
        )}
      </Section>
      {list.waiting > 0 ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="Let go of what still waits"
            kind="quiet"
            onPress={() => void drop({ id: list.id }).then(() => router.replace('/prints'))}
            testID="list-drop"
          />
        </View>
      ) : null}
    </Page>
  );
}

const sampleWords = (head: string, cells: string[]) => {
  const first = cells.find((cell) => cell !== '');
  return first === undefined ? head : `${head}: ${first.slice(0, 24)}`;
};

function Report({
  list,
  match,
  preview,
  onFixed,
}: {
  list: PrintList;
  match: ColumnMatch;
  preview: ListPreview;
  onFixed: () => void;
}) {
  return (
    <Section title="WHAT WOULD BECOME OF IT" testID="list-report">
      <Signal kind="ready" word={`${preview.good} good ${preview.good === 1 ? 'line' : 'lines'}`} />
      {preview.known > 0 ? <Signal kind="hold" word={`${preview.known} here already`} /> : null}
      {preview.badCount > 0 ? <Signal kind="due" word={`${preview.badCount} to put right: they stay here`} /> : null}
      {preview.first.map(({ line, machineName, endedAt, held, material }) => (
        <Row key={line} end={<Words size="small" tone="steel">{`line ${line}`}</Words>}>
          <Words>{`${machineName} · ${dayAndTime(endedAt)} · ${held ? 'held' : 'failed'}${material ? ` · ${material}` : ''}`}</Words>
        </Row>
      ))}
      {preview.strangers.length > 0 ? (
        <Notice kind="due" title="Machines that are not here">
          {`${preview.strangers.map(({ name, lines }) => `${name} (${lines})`).join(', ')}. Add them, or put the names right.`}
        </Notice>
      ) : null}
      {preview.bad.slice(0, 20).map((bad) => (
        <Fix key={`${bad.line} ${bad.cells.join()}`} listId={list.id} bad={bad} match={match} onFixed={onFixed} />
      ))}
      {preview.badCount > 20 ? (
        <Words tone="steel">{`The first 20 of ${preview.badCount}. All of them, with what is wrong, as a file: `}</Words>
      ) : null}
      {preview.badCount > 0 ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="Bad lines as CSV"
            icon="download"
            onPress={() => window.open(`/api/print-lists/${list.id}/bad`)}
            testID="list-bad"
          />
        </View>
      ) : null}
    </Section>
  );
}

/** A bad line with the cells that are wrong, to be put right here. */
function Fix({
  listId,
  bad,
  match,
  onFixed,
}: {
  listId: string;
  bad: BadLine;
  match: ColumnMatch;
  onFixed: () => void;
}) {
  const [cells, setCells] = useState(bad.cells);
  const [fix, { isLoading }] = useFixLineMutation();
  const faults = Object.entries(bad.faults) as [PrintColumn, string][];
  return (
    <View style={{ gap: 8, paddingVertical: 8 }} testID={`bad-line-${bad.line}`}>
      <Words bold>{`Line ${bad.line}: ${bad.cells.filter(Boolean).join(' · ').slice(0, 80)}`}</Words>
      {faults.map(([column, message]) => {
        const at = match.columns[column];
        return at === undefined ? (
          <Words key={column} tone="stop">
            {message}
          </Words>
        ) : (
          <Field
            key={column}
            label={COLUMN_NAMES[column]}
            value={cells[at] ?? ''}
            error={message}
            onChange={(text) => {
              const next = [...cells];
              while (next.length <= at) next.push('');
              next[at] = text;
              setCells(next);
            }}
            testID={`fix-${bad.line}-${column}`}
          />
        );
      })}
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label="Put it right"
          busy={isLoading}
          onPress={() => void fix({ id: listId, line: bad.line, body: { cells } }).then(onFixed)}
          testID={`fix-${bad.line}`}
        />
      </View>
    </View>
  );
}
