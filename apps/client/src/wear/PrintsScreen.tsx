import { useRouter } from 'expo-router';
import { useDeferredValue } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Empty } from '../ui/Empty';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { SearchField } from '../ui/SearchField';
import { Section } from '../ui/Section';
import { useKept } from '../ui/useKept';
import { Words } from '../ui/Words';
import { PrintLine } from './PrintLines';
import { usePrintListsQuery, usePrintsPagesInfiniteQuery } from './wearApi';

/** All prints, and the ways to write many of them down at once. */
export function PrintsScreen() {
  const router = useRouter();
  const mayDo = useAppSelector((state) => state.people.person?.role !== 'looker');
  const [search, setSearch] = useKept('prints search', '');
  const [held, setHeld] = useKept<'all' | 'true' | 'false'>('prints held', 'all');
  const query = useDeferredValue(search);
  const { data, error, isFetching, hasNextPage, fetchNextPage, refetch } = usePrintsPagesInfiniteQuery({
    search: query,
    held: held === 'all' ? null : held === 'true',
    limit: 20,
  });
  const { data: lists = [] } = usePrintListsQuery(undefined, { skip: !mayDo });
  const prints = data?.pages.flatMap(({ items }) => items) ?? [];
  const failure = errorOf(error);
  return (
    <Page
      title="Prints"
      testID="prints-page"
      place="prints"
      crumbs={[{ label: 'Bench', href: '/bench' }]}
      tools={
        mayDo ? (
          <>
            <ActionButton label="Type many" icon="type" onPress={() => router.push('/prints/grid')} testID="to-grid" />
            <ActionButton
              label="Read a list in"
              icon="file"
              onPress={() => router.push('/prints/list')}
              testID="to-list"
            />
          </>
        ) : undefined
      }
      onEnd={() => {
        if (hasNextPage && !isFetching) void fetchNextPage();
      }}
    >
      {lists.length > 0 ? (
        <Section title="LISTS WITH LINES TO PUT RIGHT">
          {lists.map(({ id, name, waiting }) => (
            <Row key={id} href={`/prints/list?id=${id}`}>
              <Words bold>{name}</Words>
              <Words size="small" tone="steel">{`${waiting} ${waiting === 1 ? 'line waits' : 'lines wait'}`}</Words>
            </Row>
          ))}
        </Section>
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        <SearchField
          label="Search machine, surface, material, note"
          value={search}
          onChange={setSearch}
          testID="prints-search"
        />
        <Choice
          label="Result"
          hideLabel
          value={held}
          onChange={setHeld}
          options={[
            { value: 'all', label: 'all' },
            { value: 'true', label: 'held' },
            { value: 'false', label: 'failed' },
          ]}
          testID="prints-held"
        />
      </View>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {!data && !failure ? <Loading what="the prints" /> : null}
      {data && prints.length === 0 ? (
        <Empty title="No print here.">
          They are written down on a machine’s page in two taps, typed here, or read in from a list.
        </Empty>
      ) : null}
      <View>
        {prints.map((print) => (
          <PrintLine key={print.id} print={print} of={{}} />
        ))}
      </View>
    </Page>
  );
}
