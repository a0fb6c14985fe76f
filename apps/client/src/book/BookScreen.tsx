import type { BookEntry, BookKind } from '@even-bed/contract';
import { isSameDay } from 'date-fns/isSameDay';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useDeferredValue, useState } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useMachinesQuery } from '../fleet/fleetApi';
import { ActionButton } from '../ui/ActionButton';
import { Empty } from '../ui/Empty';
import { clockTime, longDay } from '../ui/formatTime';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Row } from '../ui/Row';
import { SearchField } from '../ui/SearchField';
import { SPACE } from '../ui/theme';
import { Words } from '../ui/Words';
import { useBookInfiniteQuery } from './bookApi';

const KIND_NAMES: Record<BookKind, string> = {
  'area-added': 'Area added',
  'area-changed': 'Area changed',
  'machine-added': 'Machine added',
  'machine-changed': 'Machine changed',
  'rule-set': 'Rule set',
  'check-started': 'Check begun',
  'heights-read': 'Heights read',
  'turns-made': 'Turns made',
  'check-finished': 'Check finished',
  'check-dropped': 'Check dropped',
};
const KINDS = Object.keys(KIND_NAMES) as BookKind[];
const ANY = 'any';

/** The logbook: newest line first, searched by words, machine and kind. The search is part of the address. */
export function BookScreen() {
  const router = useRouter();
  const params = useLocalSearchParams<{ search?: string; machine?: string; kind?: string }>();
  const [search, setSearch] = useState(params.search ?? '');
  const kind = KINDS.find((known) => known === params.kind) ?? null;
  const query = useDeferredValue(search);
  const { data, error, isFetching, hasNextPage, fetchNextPage, refetch } = useBookInfiniteQuery({
    search: query,
    machineId: params.machine ?? null,
    kind,
  });
  const { data: machines = [] } = useMachinesQuery();
  const entries = data?.pages.flatMap(({ items }) => items) ?? [];
  const failure = errorOf(error);
  const any = (label: string) => ({ value: ANY, label });
  const setParam = (name: 'machine' | 'kind' | 'search', value: string) =>
    router.setParams({ [name]: value === ANY || value === '' ? undefined : value });

  return (
    <Page title="Book" testID="book">
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        <SearchField
          label="Search the book"
          value={search}
          onChange={(text) => {
            setSearch(text);
            setParam('search', text);
          }}
          testID="book-search"
        />
        <View style={{ flexDirection: 'row', gap: 12, flexGrow: 1 }}>
          <Pick
            label="Machine"
            hideLabel
            value={params.machine ?? ANY}
            options={[any('Every machine'), ...machines.map(({ id, name }) => ({ value: id, label: name }))]}
            onChange={(value) => setParam('machine', value)}
            testID="book-machine"
          />
          <Pick
            label="Kind"
            hideLabel
            value={kind ?? ANY}
            options={[any('Every kind'), ...KINDS.map((value) => ({ value, label: KIND_NAMES[value] }))]}
            onChange={(value) => setParam('kind', value)}
            testID="book-kind"
          />
        </View>
      </View>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {!data && isFetching ? <Loading what="the book" /> : null}
      {data && entries.length === 0 ? (
        <Empty title="No line matches.">Try the beginning of a word, another machine or every kind.</Empty>
      ) : null}
      <View testID="book-lines">
        {entries.map((entry, i) => (
          <Line key={entry.id} entry={entry} newDay={i === 0 || !isSameDay(entry.at, entries[i - 1]!.at)} />
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

function Line({ entry, newDay }: { entry: BookEntry; newDay: boolean }) {
  const href = entry.checkId
    ? (`/level/${entry.checkId}` as const)
    : entry.machineId
      ? (`/floor/${entry.machineId}` as const)
      : undefined;
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
        href={href}
        end={
          <Words size="small" tone="steel" figures>
            {clockTime(entry.at)}
          </Words>
        }
      >
        <Words>{entry.text}</Words>
        <Words size="small" tone="steel">
          {KIND_NAMES[entry.kind]}
        </Words>
      </Row>
    </>
  );
}
