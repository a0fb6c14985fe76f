import type { BookEntry } from '@even-bed/contract';
import { useLocalSearchParams, useRouter, type Href } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { clockTime, longDay } from '../ui/formatTime';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { Facts } from '../ui/Facts';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { useBookPagesInfiniteQuery, useCorrectMutation, useEntryQuery } from './bookApi';
import { detailRows } from './detailRows';
import { KIND_NAMES } from './kindNames';

/** A line that was written so much later than it happened says when. */
const LATE_MS = 2 * 60_000;

/** One line of the book: who, when, what, old and new, and where it leads. A lead corrects it by a new line. */
export function EntryScreen() {
  const { entryId } = useLocalSearchParams<{ entryId: string }>();
  return <Entry key={entryId} entryId={entryId} />;
}

/** The latest line, until another one is chosen. */
export function LatestEntry() {
  const { data } = useBookPagesInfiniteQuery({ limit: 40 });
  const latest = data?.pages[0]?.items[0];
  return latest ? <Entry key={latest.id} entryId={latest.id} /> : null;
}

function Entry({ entryId }: { entryId: string }) {
  const isLead = useAppSelector((state) => state.people.person?.role === 'lead');
  const { data: entry, error, refetch } = useEntryQuery({ id: entryId });
  const failure = errorOf(error);
  return (
    <Page title={entry ? KIND_NAMES[entry.kind] : 'A line'} crumbs={[{ label: 'Book', href: '/book' }]} testID="entry">
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {!entry && !failure ? <Loading what="the line" /> : null}
      {entry ? (
        <>
          <Words size="lead">{entry.text}</Words>
          <Words tone="steel">{`${longDay(entry.at)}, ${clockTime(entry.at)} · ${entry.personName ?? 'nobody signed in'}`}</Words>
          {entry.writtenAt !== null && Math.abs(entry.writtenAt - entry.at) > LATE_MS ? (
            <Words size="small" tone="steel" testID="written-at">
              {`So it was told. The server wrote it down on ${longDay(entry.writtenAt)}, ${clockTime(entry.writtenAt)}.`}
            </Words>
          ) : null}
          {entry.correctedBy ? (
            <Notice kind="due" title="This line was corrected">
              <Row href={`/book/${entry.correctedBy}`}>
                <Words>See what is right</Words>
              </Row>
            </Notice>
          ) : null}
          <Leads entry={entry} />
          <Details data={entry.data} />
          {isLead && entry.kind !== 'correction' ? <Correct entry={entry} /> : null}
          <Words
            size="small"
            tone="steel"
          >{`Line ${entry.seq} · mark ${entry.hash.slice(0, 16)}, after ${entry.beforeHash.slice(0, 16)}`}</Words>
        </>
      ) : null}
    </Page>
  );
}

function Leads({ entry }: { entry: BookEntry }) {
  const leads: [string, Href][] = [
    ...(entry.checkId ? [['The level check', `/level/${entry.checkId}`] as [string, Href]] : []),
    ...(entry.surfaceId ? [[entry.surfaceTag ?? 'The surface', `/rack/${entry.surfaceId}`] as [string, Href]] : []),
    ...(entry.machineId ? [[entry.machineName ?? 'The machine', `/floor/${entry.machineId}`] as [string, Href]] : []),
    ...(entry.corrects ? [['The line that it corrects', `/book/${entry.corrects}`] as [string, Href]] : []),
  ];
  if (leads.length === 0) return null;
  return (
    <Section title="LEADS TO" testID="entry-leads">
      {leads.map(([label, href]) => (
        <Row key={label} href={href}>
          <Words bold>{label}</Words>
        </Row>
      ))}
    </Section>
  );
}

/** What changed, as data: old and new where both are known. */
function Details({ data }: { data: object }) {
  const rows = detailRows(data);
  if (rows.length === 0) return null;
  return (
    <Section title="DETAILS">
      <Facts rows={rows} />
    </Section>
  );
}

function Correct({ entry }: { entry: BookEntry }) {
  const router = useRouter();
  const [text, setText] = useState('');
  const [correct, { isLoading, error }] = useCorrectMutation();
  const failure = errorOf(error);
  const submit = async () => {
    const result = await correct({ key: uuid(), body: { corrects: entry.id, text, at: Date.now() } });
    if (!result.error) router.push('/book');
  };
  return (
    <Section title="CORRECT IT">
      <Words size="small" tone="steel">
        The line stays as it was written; a new one says what is right and points to it.
      </Words>
      <Field
        label="What is right"
        value={text}
        onChange={setText}
        lines={2}
        error={failure ? (failure.fields['text'] ?? failure.message) : undefined}
        testID="correction-text"
      />
      <View style={{ alignSelf: 'flex-start' }}>
        <ActionButton
          label="Write the correction"
          busy={isLoading}
          disabled={text.trim() === ''}
          onPress={() => void submit()}
          testID="correction-save"
        />
      </View>
    </Section>
  );
}
