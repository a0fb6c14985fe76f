import type { Surface } from '@even-bed/contract';
import type { Side } from '@even-bed/core';
import { View } from 'react-native';
import { useBookPagesInfiniteQuery } from '../book/bookApi';
import { shortDate } from '../ui/formatTime';
import { LifeStrip, type Notch } from '../ui/LifeStrip';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import { seenLast } from './seenLast';
import { lifeOfSide, lifeWords, sideWords } from './surfaceWords';

const MARKS = { wiped: 'w', washed: 'W', scrubbed: 's', renewed: 'R', repaired: 'r', other: 'o' } as const;

/** The life of each side as a strip, with what was done to it as notches. */
export function SideLife({ surface, now }: { surface: Surface; now: number }) {
  const { data } = useBookPagesInfiniteQuery({ surfaceId: surface.id, kind: 'surface-work-done' });
  const { data: flips } = useBookPagesInfiniteQuery({ surfaceId: surface.id, kind: 'surface-turned' });
  const { data: looks } = useBookPagesInfiniteQuery({ surfaceId: surface.id, kind: 'inspected' });
  const sides: Side[] = surface.kind.sides.length < 2 ? ['A'] : ['A', 'B'];
  const since = surface.renewedAt ?? surface.boughtAt ?? surface.createdAt;
  const done = [
    ...(data?.pages.flatMap(({ items }) => items) ?? []),
    ...(flips?.pages.flatMap(({ items }) => items) ?? []),
  ];
  const works = done.flatMap(({ kind, at }) => (kind === 'surface-work-done' ? [at] : []));
  const seen = seenLast(looks?.pages.flatMap(({ items }) => items) ?? [], works, since);
  const { awaiting } = surface.state;
  // What hands and eyes found counts for more than what the count of prints would allow.
  const against = awaiting
    ? `Work asked for: ${awaiting}`
    : seen
      ? `${seen.words}, seen ${shortDate(seen.at, now)}`
      : null;
  return (
    <Section title="LIFE" testID="life">
      {against ? (
        <View testID="life-against">
          <Signal kind={!awaiting && seen?.weight === 'stop' ? 'stop' : 'due'} word={against} />
          <Words size="small" tone="steel">
            The figures below count prints only.
          </Words>
        </View>
      ) : null}
      {sides.map((side) => {
        const life = lifeOfSide(surface, side, now);
        const { prints, grams } = surface.use[side];
        const used = `${prints} ${prints === 1 ? 'print' : 'prints'}${grams > 0 ? `, ${Math.round(grams)} g` : ''}`;
        // Notches lie by their time: between two of them the strip knows no finer.
        const notches: Notch[] = life
          ? done
              .filter(({ at }) => at > since && at <= now)
              .map((entry) => {
                const share = (entry.at - since) / Math.max(1, now - since);
                const mark = entry.kind === 'surface-work-done' ? MARKS[entry.data.event.work] : 'f';
                return { at: share * life.used, mark };
              })
          : [];
        return (
          <View key={side} style={{ gap: 4 }}>
            <View
              style={{
                flexDirection: 'row',
                flexWrap: 'wrap',
                columnGap: 8,
                alignItems: 'center',
                justifyContent: 'space-between',
              }}
            >
              <Words bold>{sideWords(side, surface.kind)}</Words>
              {life && against !== null && life.state === 'ready' ? (
                <Words size="small" tone="steel">
                  {lifeWords(life)}
                </Words>
              ) : life ? (
                <Signal
                  kind={life.state === 'ready' ? 'ready' : life.state === 'due' ? 'due' : 'stop'}
                  word={lifeWords(life)}
                />
              ) : (
                <Words size="small" tone="steel">
                  {used}
                </Words>
              )}
            </View>
            {life ? <LifeStrip {...life} notches={notches} label={`${used} used; ${lifeWords(life)}`} /> : null}
            {life ? (
              <Words size="small" tone="steel">
                {`${used} since it was ${surface.renewedAt ? 'renewed' : 'new'}`}
              </Words>
            ) : null}
          </View>
        );
      })}
      {surface.failures > 0 ? (
        <Words size="small" tone="steel">
          {`${surface.failures} ${surface.failures === 1 ? 'print has' : 'prints have'} failed on it since it was ${surface.renewedAt ? 'renewed' : 'new'}.`}
        </Words>
      ) : null}
      {done.length > 0 ? (
        <Words size="small" tone="steel">
          Notches: w wiped, W washed, s scrubbed, R renewed, f flipped or turned.
        </Words>
      ) : null}
    </Section>
  );
}
