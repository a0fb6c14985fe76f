import { useRouter } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import { errorOf } from '../api/errorOf';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Empty } from '../ui/Empty';
import { Failed, Loading } from '../ui/Loading';
import { Page } from '../ui/Page';
import { SearchField } from '../ui/SearchField';
import { useHasTwoColumns, useIsWide } from '../ui/theme';
import { useKept } from '../ui/useKept';
import { useFirstFew } from '../ui/useFirstFew';
import { Words } from '../ui/Words';
import { useMachinesQuery } from '../fleet/fleetApi';
import { FloorList } from './FloorList';
import { FloorPlates } from './FloorPlates';
import { matchesSearch } from '../fleet/machineState';

/** The machines, by area and shelf, each with its state. */
export function FloorScreen() {
  const router = useRouter();
  const wide = useIsWide();
  const two = useHasTwoColumns();
  const [search, setSearch] = useKept('floor search', '');
  const { data: machines, error, refetch } = useMachinesQuery();
  const failure = errorOf(error);
  const shown = useMemo(() => machines?.filter((machine) => matchesSearch(machine, search)) ?? [], [machines, search]);
  const drawn = useFirstFew(shown);
  const mayDo = useAppSelector((state) => state.people.person?.role !== 'looker');
  const add = mayDo ? (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
      <ActionButton label="Add a machine" icon="add" onPress={() => router.push('/floor/new')} testID="add-machine" />
      <ActionButton label="From a list" icon="file" onPress={() => router.push('/floor/list')} testID="add-list" />
    </View>
  ) : undefined;
  return (
    <Page title="Floor" testID="floor" place="floor" tools={wide ? add : undefined}>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {!machines && !failure ? <Loading what="the machines" /> : null}
      {machines && machines.length > 0 ? (
        <View style={{ flexDirection: 'row', maxWidth: 520 }}>
          <SearchField
            label="Search name, model, area, shelf"
            value={search}
            onChange={setSearch}
            testID="floor-search"
          />
        </View>
      ) : null}
      {machines?.length === 0 ? (
        <Empty title="The floor is empty.">Add the first machine: its plate, its adjusters and where they stand.</Empty>
      ) : null}
      {machines && machines.length > 0 && shown.length === 0 ? (
        <Words tone="steel">No machine matches. Try the beginning of a word.</Words>
      ) : null}
      {two ? <FloorPlates machines={drawn} /> : <FloorList machines={drawn} />}
      {wide || !machines ? null : <View style={{ alignSelf: 'flex-start' }}>{add}</View>}
    </Page>
  );
}
