import type { Surface } from '@even-bed/contract';
import { useRouter } from 'expo-router';
import { useDeferredValue, useState } from 'react';
import { Pressable, View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { SearchField } from '../ui/SearchField';
import { Tag } from '../ui/Tag';
import { TOUCH, usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import { useSurfacesQuery } from './surfacesApi';
import { whereWords } from './surfaceWords';

interface Props {
  /** Shows what fits it, what lies in the rack first, until something is typed. */
  machineId?: string | undefined;
  onFound: (surface: Surface) => void;
}

/** Which surface: one that fits, typed, or its tag scanned. */
export function FindSurface({ machineId, onFound }: Props) {
  const router = useRouter();
  const palette = usePalette();
  const [search, setSearch] = useState('');
  const query = useDeferredValue(search);
  const { data = [] } = useSurfacesQuery({ search: query, fits: query === '' ? machineId : undefined, limit: 60 });
  const free = ({ state }: Surface) => (state.where.kind === 'rack' ? 0 : 1);
  const usable = data.filter(({ state }) => state.retired === null).sort((p, q) => free(p) - free(q));
  return (
    <View style={{ gap: 12 }}>
      <View style={{ flexDirection: 'row', gap: 12, flexWrap: 'wrap' }}>
        <SearchField
          label="Which surface? Tag, kind, place"
          value={search}
          onChange={setSearch}
          testID="find-surface"
        />
        <ActionButton label="Scan" icon="code" onPress={() => router.push('/scan')} />
      </View>
      {machineId && search === '' && usable.length > 0 ? (
        <Words size="small" tone="steel">
          What fits by kind and size, the rack first. Type to search everything.
        </Words>
      ) : null}
      {usable.map((surface) => (
        <Pressable
          key={surface.id}
          role="button"
          onPress={() => onFound(surface)}
          testID={`found-${surface.tag}`}
          style={{
            flexDirection: 'row',
            gap: 12,
            alignItems: 'center',
            minHeight: TOUCH + 8,
            borderBottomWidth: 1,
            borderBottomColor: palette.hairline,
          }}
        >
          <Tag>{surface.tag}</Tag>
          <View style={{ flex: 1 }}>
            <Words bold>{surface.kind.name}</Words>
            <Words size="small" tone="steel">
              {whereWords(surface)}
            </Words>
          </View>
        </Pressable>
      ))}
      {search !== '' && usable.length === 0 ? <Words tone="steel">No surface matches.</Words> : null}
    </View>
  );
}
