import type { MachineOverview, Surface } from '@even-bed/contract';
import type { SurfaceCondition, SurfaceGroup } from '@even-bed/core';
import { groupFacts, GROUPS } from '@even-bed/core/surfaces/groups';
import { useGlobalSearchParams, useRouter } from 'expo-router';
import { useDeferredValue, useMemo, useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useMachinesQuery } from '../fleet/fleetApi';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Empty } from '../ui/Empty';
import { Failed, Loading } from '../ui/Loading';
import { Narrowing } from '../ui/Narrowing';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { SearchField } from '../ui/SearchField';
import { useHasTwoColumns } from '../ui/theme';
import { useNow } from '../ui/useNow';
import { useFirstFew } from '../ui/useFirstFew';
import { askedIn, useKept } from '../ui/useKept';
import { Words } from '../ui/Words';
import { PlaceDialog } from './PlaceDialog';
import { RackRow } from './RackRow';
import { useMoveManyMutation, usePlacesQuery, useSurfacesPagesInfiniteQuery } from './surfacesApi';

const ANY = 'any';
const STATES: { value: SurfaceCondition; label: string }[] = [
  { value: 'in-use', label: 'In use' },
  { value: 'in-rack', label: 'In the rack' },
  { value: 'on-hold', label: 'On hold' },
  { value: 'awaiting-work', label: 'Waits for work' },
  { value: 'retired', label: 'Retired' },
];

const NO_MACHINES: MachineOverview[] = [];
type Filter = Partial<Record<'search' | 'group' | 'state' | 'place', string>>;

interface ListProps {
  /** The one whose page stands beside the list. */
  selectedId: string | null;
}

/** Every sheet, platform, base and film: where it is, which side is up, what is left of it. */
export function RackScreen({ selectedId }: ListProps) {
  const router = useRouter();
  const now = useNow();
  const two = useHasTwoColumns();
  const mayDo = useAppSelector((state) => state.people.person?.role !== 'looker');
  const address = useGlobalSearchParams<Filter>();
  // Kept here beside the address: another surface's page has an address of its own, and the list stays as it is.
  const asked = askedIn(address);
  const [params, setParams] = useKept<Filter>('rack filter', {}, asked);
  const [search, setSearch] = useKept('rack search', '', asked && (asked.search ?? ''));
  const [chosen, setChosen] = useState<ReadonlyMap<string, Surface> | null>(null);
  const [moving, setMoving] = useState(false);
  const query = useDeferredValue(search);
  const { data, error, isFetching, hasNextPage, fetchNextPage, refetch } = useSurfacesPagesInfiniteQuery({
    search: query,
    group: (params.group as SurfaceGroup | undefined) ?? null,
    state: (params.state as SurfaceCondition | undefined) ?? null,
    place: params.place ?? null,
  });
  const { data: places = [] } = usePlacesQuery();
  const { data: machines = NO_MACHINES, isLoading: machinesCome } = useMachinesQuery();
  const [move, moved] = useMoveManyMutation();
  const surfaces = useMemo(() => data?.pages.flatMap(({ items }) => items) ?? [], [data]);
  const drawn = useFirstFew(surfaces);
  const byId = useMemo(() => new Map(machines.map((machine) => [machine.id, machine])), [machines]);
  const machineOf = ({ state: { where } }: Surface) =>
    where.kind === 'machine' ? byId.get(where.machineId) : undefined;
  const failure = errorOf(error);
  const narrowed = search !== '' || params.group || params.state || params.place;
  const set = (name: 'group' | 'state' | 'place', value: string) => {
    const chosenValue = value === ANY ? undefined : value;
    setParams({ ...params, [name]: chosenValue });
    if (selectedId === null) router.setParams({ [name]: chosenValue });
  };
  const toggle = (surface: Surface) => {
    const next = new Map(chosen);
    if (!next.delete(surface.id)) next.set(surface.id, surface);
    setChosen(next);
  };
  const labels = () => {
    const tags = [...(chosen?.values() ?? [])].map(({ tag }) => tag).sort();
    router.push(`/labels?tags=${tags.join(',')}`);
  };
  const count = chosen?.size ?? 0;
  return (
    <Page
      title="Rack"
      testID="rack"
      place="rack"
      tools={
        <>
          {mayDo ? (
            <ActionButton label="Add" icon="add" grow onPress={() => router.push('/rack/new')} testID="add-surface" />
          ) : null}
          <ActionButton
            label={chosen ? 'Done' : 'Choose'}
            icon="check"
            grow
            onPress={() => setChosen(chosen ? null : new Map())}
            testID="choose-several"
          />
          <ActionButton label="Scan" icon="code" grow onPress={() => router.push('/scan')} testID="to-scan" />
        </>
      }
      onEnd={() => {
        if (hasNextPage && !isFetching) void fetchNextPage();
      }}
      actions={
        chosen ? (
          <>
            <ActionButton
              label={`Labels for ${count}`}
              icon="label"
              grow
              disabled={count === 0}
              onPress={labels}
              testID="labels-chosen"
            />
            {mayDo ? (
              <ActionButton
                label={`Move ${count}`}
                kind="main"
                grow
                disabled={count === 0}
                onPress={() => setMoving(true)}
                testID="move-chosen"
              />
            ) : null}
          </>
        ) : undefined
      }
    >
      <View style={{ gap: 12 }}>
        <View style={{ flexDirection: 'row' }}>
          <SearchField
            label="Search tag, kind, place, machine"
            value={search}
            onChange={setSearch}
            testID="rack-search"
          />
        </View>
        <Narrowing count={[params.group, params.state, params.place].filter(Boolean).length} testID="rack-narrow">
          <Pick
            label="Group"
            hideLabel
            value={params.group ?? ANY}
            options={[
              { value: ANY, label: 'Every kind' },
              ...GROUPS.map((value) => ({ value, label: groupFacts(value).many })),
            ]}
            onChange={(value) => set('group', value)}
            testID="rack-group"
          />
          <Pick
            label="State"
            hideLabel
            value={params.state ?? ANY}
            options={[{ value: ANY, label: 'Every state' }, ...STATES]}
            onChange={(value) => set('state', value)}
            testID="rack-state"
          />
          {places.length > 0 ? (
            <Pick
              label="Place"
              hideLabel
              value={params.place ?? ANY}
              options={[{ value: ANY, label: 'Every place' }, ...places.map((value) => ({ value, label: value }))]}
              onChange={(value) => set('place', value)}
              testID="rack-place"
            />
          ) : null}
        </Narrowing>
      </View>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : null}
      {(!data || machinesCome) && !failure ? <Loading what="the rack" /> : null}
      {data && surfaces.length === 0 ? (
        narrowed ? (
          <Words tone="steel">No surface matches. Try another state, or the beginning of a tag.</Words>
        ) : (
          <Empty title="The rack is empty.">
            <Words tone="steel">
              Add what prints stick to: sheets, bases, platforms, films. Each gets a tag, and from then on the book
              knows where it is and what was done to it.
            </Words>
          </Empty>
        )
      ) : null}
      <View testID="rack-list" style={two ? { flexDirection: 'row', flexWrap: 'wrap', columnGap: 24 } : {}}>
        {(machinesCome ? [] : drawn).map((surface) => (
          <View key={surface.id} style={two ? { flexBasis: '45%', flexGrow: 1 } : {}}>
            <RackRow
              machine={machineOf(surface)}
              surface={surface}
              now={now}
              selected={surface.id === selectedId}
              chosen={chosen ? chosen.has(surface.id) : null}
              onChoose={() => toggle(surface)}
            />
          </View>
        ))}
      </View>
      {hasNextPage ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton label="More" busy={isFetching} onPress={() => void fetchNextPage()} />
        </View>
      ) : null}
      {moving ? (
        <PlaceDialog
          title={`Move ${count} ${count === 1 ? 'surface' : 'surfaces'} to`}
          failure={errorOf(moved.error)?.message}
          onClose={() => setMoving(false)}
          onPlace={async (place) => {
            const body = { ids: [...chosen!.keys()], place, at: Date.now() };
            const result = await move({ key: uuid(), body });
            if (result.error) return;
            setMoving(false);
            setChosen(null);
          }}
        />
      ) : null}
    </Page>
  );
}
