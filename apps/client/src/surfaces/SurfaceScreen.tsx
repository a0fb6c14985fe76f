import type { Surface } from '@even-bed/contract';
import { useLocalSearchParams, useRouter } from 'expo-router';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { useBookPagesInfiniteQuery } from '../book/bookApi';
import { KIND_NAMES } from '../book/kindNames';
import { errorOf } from '../api/errorOf';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Columns } from '../ui/Columns';
import { shortDate } from '../ui/formatTime';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Tag } from '../ui/Tag';
import { useNow } from '../ui/useNow';
import { Words } from '../ui/Words';
import { CareList } from './CareList';
import { SideLife } from './SideLife';
import { useHasTwoColumns } from '../ui/theme';
import { SurfaceActions } from './SurfaceActions';
import { SurfaceSection } from './SurfaceSection';
import { SurfaceFactList } from './SurfaceFactList';
import { useKnownSurface } from './useKnown';
import { conditionWords, whereWords } from './surfaceWords';

interface Props {
  /** Parts of other areas: prints, inspections, photos. */
  parts?: (surface: Surface) => ReactNode;
  /** What stands in the second column of a wide screen is still on its way: it comes whole. */
  restComing?: boolean;
}

/** A surface's page: how it stands, what can be done with it, its life, its history. */
export function SurfaceScreen(props: Props) {
  const { surfaceId } = useLocalSearchParams<{ surfaceId: string }>();
  const { data: surface, error, refetch } = useKnownSurface(surfaceId);
  const failure = errorOf(error);
  return surface ? (
    <SurfacePage key={surface.id} surface={surface} {...props} />
  ) : (
    <Page title="Surface" crumbs={[{ label: 'Rack', href: '/rack' }]}>
      {failure ? <Failed message={failure.message} onRetry={refetch} /> : <Loading what="the surface" />}
    </Page>
  );
}

function SurfacePage({ surface, parts, restComing }: Props & { surface: Surface }) {
  const router = useRouter();
  const now = useNow();
  const mayDo = useAppSelector((state) => state.people.person?.role !== 'looker');
  const two = useHasTwoColumns();
  const condition = conditionWords(surface.state, now);
  const { hold, awaiting, where } = surface.state;
  return (
    <Page
      title={surface.tag}
      testID="surface"
      crumbs={[{ label: 'Rack', href: '/rack' }]}
      state={<Signal kind={condition.signal} word={condition.words} />}
      actions={
        mayDo && surface.state.retired === null ? (
          <>
            <ActionButton
              label="Inspect"
              icon="look"
              onPress={() => router.push(`/inspect?surface=${surface.id}`)}
              testID="inspect"
            />
            <ActionButton
              label={where.kind === 'machine' ? 'Put on another machine' : 'Put on a machine'}
              kind="main"
              grow
              onPress={() => router.push(`/mount?surface=${surface.id}`)}
              testID="put-on"
            />
          </>
        ) : undefined
      }
    >
      <View style={{ gap: 4 }}>
        <Words size="lead" bold>
          {surface.kind.name}
        </Words>
        <Words tone="steel" testID="surface-where">
          {whereWords(surface)}
        </Words>
        {where.kind === 'machine' ? (
          <Row href={`/floor/${where.machineId}`}>
            <View style={{ flexDirection: 'row', gap: 8 }}>
              <Words bold>{surface.machineName ?? ''}</Words>
              {where.turned === 0 ? null : <Tag>{`turned ${where.turned}°`}</Tag>}
            </View>
          </Row>
        ) : null}
      </View>
      {hold && condition.signal === 'hold' ? (
        <Notice kind="hold" title={condition.words} testID="surface-hold">
          {hold.reason || 'It may not be used until then.'}
        </Notice>
      ) : null}
      {awaiting ? (
        <Notice kind="due" title="Waits for work">
          {awaiting}
        </Notice>
      ) : null}
      <Columns
        left={
          <>
            {mayDo ? <SurfaceActions surface={surface} now={now} /> : null}
            <SurfaceSection surface={surface} />
            <SideLife surface={surface} now={now} />
          </>
        }
        right={
          restComing && two ? (
            <Loading what="the rest" />
          ) : (
            <>
              {parts?.(surface)}
              <CareList kind={surface.kind} />
              <SurfaceFactList surface={surface} now={now} />
              <History surface={surface} now={now} />
            </>
          )
        }
      />
    </Page>
  );
}

function History({ surface, now }: { surface: Surface; now: number }) {
  const { data, hasNextPage, fetchNextPage, isFetching } = useBookPagesInfiniteQuery({ surfaceId: surface.id });
  const entries = data?.pages.flatMap(({ items }) => items) ?? [];
  return (
    <Section title="HISTORY" testID="surface-history">
      {entries.map((entry) => (
        <Row
          key={entry.id}
          aside={{
            href: `/book/${entry.id}`,
            label: shortDate(entry.at, now),
            says: `About the line of ${shortDate(entry.at, now)}`,
          }}
        >
          <Words>{entry.text}</Words>
          <Words size="small" tone="steel">
            {[KIND_NAMES[entry.kind], entry.personName].filter(Boolean).join(' · ')}
          </Words>
        </Row>
      ))}
      {hasNextPage ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton label="Older lines" busy={isFetching} onPress={() => void fetchNextPage()} />
        </View>
      ) : null}
    </Section>
  );
}
