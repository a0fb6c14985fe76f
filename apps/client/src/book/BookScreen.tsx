import type { BookEntry } from '@even-bed/contract';
import { isSameDay } from 'date-fns/isSameDay';
import { useGlobalSearchParams, useRouter } from 'expo-router';
import { useContext, useDeferredValue, useMemo, useState } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useMachinesQuery } from '../fleet/fleetApi';
import { usePeopleQuery } from '../people/peopleApi';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Empty } from '../ui/Empty';
import { Field } from '../ui/Field';
import { clockTime, longDay, shopZone } from '../ui/formatTime';
import { Failed, Loading } from '../ui/Loading';
import { Narrowing } from '../ui/Narrowing';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Row } from '../ui/Row';
import { SearchField } from '../ui/SearchField';
import { PaneContext, SPACE } from '../ui/theme';
import { useFirstFew } from '../ui/useFirstFew';
import { askedIn, useKept } from '../ui/useKept';
import { Words } from '../ui/Words';
import { useBookPagesInfiniteQuery } from './bookApi';
import { CheckTheBook } from './CheckTheBook';
import { KIND_NAMES, KINDS, recordOf } from './kindNames';
import { readDay } from './timeSpan';

const ANY = 'any';
type Params = Partial<Record<'search' | 'machine' | 'surface' | 'person' | 'kind' | 'from' | 'to', string>>;

/** The logbook: newest line first, searched by words, machine, surface, person, kind and time. The search is part of the address. */
export function BookScreen({ selectedId }: { selectedId: string | null }) {
  const router = useRouter();
  const beside = useContext(PaneContext);
  const address = useGlobalSearchParams<Params>();
  const asked = askedIn(address);
  // Kept here beside the address: another line's page has an address of its own, and the list stays as it is.
  const [params, setParams] = useKept<Params>('book filter', {}, asked);
  const isLead = useAppSelector((state) => state.people.person?.role === 'lead');
  const [search, setSearch] = useKept('book search', params.search ?? '', asked && (asked.search ?? ''));
  const [from, setFrom] = useState(params.from ?? '');
  const [to, setTo] = useState(params.to ?? '');
  const kind = KINDS.find((known) => known === params.kind) ?? null;
  const query = useDeferredValue(search);
  const { data, error, isFetching, hasNextPage, fetchNextPage, refetch } = useBookPagesInfiniteQuery({
    search: query,
    machineId: params.machine ?? null,
    surfaceId: params.surface ?? null,
    personId: params.person ?? null,
    kind,
    from: readDay(params.from ?? '', 'start'),
    to: readDay(params.to ?? '', 'end'),
    limit: 40,
  });
  const { data: machines = [] } = useMachinesQuery();
  const { data: people = [] } = usePeopleQuery();
  const entries = useFirstFew(useMemo(() => data?.pages.flatMap(({ items }) => items) ?? [], [data]));
  const failure = errorOf(error);
  const any = (label: string) => ({ value: ANY, label });
  const setParam = (name: keyof Params, value: string) => {
    const chosen = value === ANY || value === '' ? undefined : value;
    setParams({ ...params, [name]: chosen });
    if (selectedId === null) router.setParams({ [name]: chosen });
  };
  const day = (name: 'from' | 'to', value: string, set: (text: string) => void) => {
    set(value);
    if (value === '' || readDay(value, 'start') !== null) setParam(name, value);
  };
  const dayFault = (value: string) =>
    value !== '' && readDay(value, 'start') === null ? 'Type a day, such as 2026-11-25.' : undefined;

  return (
    <Page
      title="Book"
      testID="book"
      place="book"
      tools={isLead ? <CheckTheBook /> : undefined}
      onEnd={() => {
        if (hasNextPage && !isFetching) void fetchNextPage();
      }}
    >
      <SearchField
        label="Search the book"
        value={search}
        onChange={(text) => {
          setSearch(text);
          setParam('search', text);
        }}
        testID="book-search"
      />
      <Narrowing
        count={[params.machine, kind, params.person, params.from, params.to].filter(Boolean).length}
        testID="book-narrow"
      >
        <Pick
          label="Machine"
          value={params.machine ?? ANY}
          options={[any('Every machine'), ...machines.map(({ id, name }) => ({ value: id, label: name }))]}
          onChange={(value) => setParam('machine', value)}
          testID="book-machine"
        />
        <Pick
          label="Kind"
          value={kind ?? ANY}
          options={[any('Every kind'), ...KINDS.map((value) => ({ value, label: KIND_NAMES[value] }))]}
          onChange={(value) => setParam('kind', value)}
          testID="book-kind"
        />
        <Pick
          label="Person"
          value={params.person ?? ANY}
          options={[any('Everybody'), ...people.map(({ id, name }) => ({ value: id, label: name }))]}
          onChange={(value) => setParam('person', value)}
          testID="book-person"
        />
        <Field
          label="From"
          placeholder="2026-11-01"
          value={from}
          onChange={(text) => day('from', text, setFrom)}
          error={dayFault(from)}
          testID="book-from"
        />
        <Field
          label="To"
          placeholder="2026-11-30"
          value={to}
          onChange={(text) => day('to', text, setTo)}
          error={dayFault(to)}
          testID="book-to"
        />
      </Narrowing>
      {params.surface ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label={`Only ${entries[0]?.surfaceTag ?? 'one surface'}: show all`}
            icon="close"
            kind="quiet"
            onPress={() => setParam('surface', '')}
          />
        </View>
      ) : null}
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {!data && isFetching ? <Loading what="the book" /> : null}
      {data && entries.length === 0 ? (
        <Empty title="No line matches.">Try the beginning of a word, another machine or every kind.</Empty>
      ) : null}
      <View testID="book-lines">
        {entries.map((entry, i) => (
          <Line
            key={entry.id}
            entry={entry}
            beside={beside}
            selected={entry.id === selectedId}
            newDay={i === 0 || !isSameDay(entry.at, entries[i - 1]!.at, { in: shopZone() })}
          />
        ))}
      </View>
      {hasNextPage ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="Older lines"
            busy={isFetching}
            onPress={() => void fetchNextPage()}
            testID="book-older"
          />
        </View>
      ) : null}
    </Page>
  );
}

interface LineProps {
  entry: BookEntry;
  newDay: boolean;
  /** Whether what stands behind a line is shown beside the list. */
  beside: boolean;
  selected: boolean;
}

function Line({ entry, newDay, beside, selected }: LineProps) {
  return (
    <>
      {newDay ? (
        <View style={{ paddingTop: SPACE.m }}>
          <Words size="small" bold tone="steel" heading={2}>
            {longDay(entry.at)}
          </Words>
        </View>
      ) : null}
      <Row
        href={beside ? `/book/${entry.id}` : recordOf(entry)}
        selected={selected}
        aside={{
          href: `/book/${entry.id}`,
          label: clockTime(entry.at),
          says: `About the line of ${clockTime(entry.at)}`,
        }}
        testID={`line-${entry.seq}`}
      >
        <Words style={entry.correctedBy ? { textDecorationLine: 'line-through' } : undefined}>{entry.text}</Words>
        <Words size="small" tone="steel">
          {[KIND_NAMES[entry.kind], entry.personName, entry.correctedBy ? 'corrected' : null]
            .filter(Boolean)
            .join(' · ')}
        </Words>
      </Row>
    </>
  );
}
