import { Link, type Href } from 'expo-router';
import { useEffect, useRef, type ReactNode } from 'react';
import { Pressable, ScrollView, View, type LayoutChangeEvent } from 'react-native';
import { Icon } from './Icon';
import { RuleLine } from './RuleLine';
import { SPACE, TOUCH, useIsWide, useOnItsSide, usePalette } from './theme';
import { keepPlace, placeKept } from './useKept';
import { Words } from './Words';

export interface Crumb {
  label: string;
  href: Href;
}

interface Props {
  title: string;
  /** The way back, outermost first. */
  crumbs?: readonly Crumb[];
  /** Stands at the right of the crumbs: a state. */
  state?: ReactNode;
  /** Buttons at the right of the title on a wide screen, under the title on a phone. */
  tools?: ReactNode;
  /** Buttons in the thumb's reach at the bottom of a phone; beside the title on a wide screen. */
  actions?: ReactNode;
  children: ReactNode;
  /** By which the place in a long list is found again when somebody comes back to it. */
  place?: string;
  /** Told when the end of the page comes into reach. */
  onEnd?: () => void;
  testID?: string;
}

/** The tab says which view it holds. */
function usePageTitle(title: string): void {
  useEffect(() => {
    if (typeof document !== 'undefined') document.title = title === 'Even Bed' ? title : `${title} · Even Bed`;
  }, [title]);
}

/** From so many pixels before the end on, more is fetched. */
const END_REACH = 600;

/** Goes back to where somebody was in the page as soon as there is so much of it, unless they have moved meanwhile. */
function usePlace(place: string | undefined) {
  const ref = useRef<ScrollView>(null);
  const wanted = useRef(place === undefined ? 0 : placeKept(place));
  const height = useRef(0);
  const settle = () => (wanted.current = 0);
  // The last word of a scroll may come once the page has gone, and would say that it is at its top.
  const here = useRef(true);
  useEffect(() => {
    here.current = true;
    return () => void (here.current = false);
  }, []);
  return {
    props: {
      ref,
      onTouchStart: settle,
      onWheel: settle,
      onLayout: ({ nativeEvent: { layout } }: LayoutChangeEvent) => (height.current = layout.height),
      onContentSizeChange: (_width: number, content: number) => {
        if (wanted.current === 0) return;
        ref.current?.scrollTo({ y: wanted.current, animated: false });
        if (content - height.current >= wanted.current) settle();
      },
    },
    moved: (y: number) => {
      if (place !== undefined && here.current && wanted.current === 0) keepPlace(place, y);
    },
  };
}

/** The frame of every page: the way back, a title over the steel rule, the content, the actions. */
export function Page({ title, crumbs = [], state, tools, actions, children, place, onEnd, testID }: Props) {
  const palette = usePalette();
  const wide = useIsWide();
  const onItsSide = useOnItsSide();
  usePageTitle(title);
  const stateOnTop = crumbs.length > 0 && !(wide && tools);
  const inset = wide ? 28 : SPACE.m;
  const scroll = usePlace(place);
  return (
    <View
      style={{ flex: 1, flexDirection: onItsSide ? 'row' : 'column', backgroundColor: palette.paper }}
      testID={testID}
    >
      <ScrollView
        {...scroll.props}
        scrollEventThrottle={100}
        onScroll={({ nativeEvent: { contentOffset, contentSize, layoutMeasurement } }) => {
          scroll.moved(contentOffset.y);
          if (contentOffset.y + layoutMeasurement.height > contentSize.height - END_REACH) onEnd?.();
        }}
        contentContainerStyle={{ padding: inset, paddingTop: wide ? 20 : 12, gap: SPACE.m, paddingBottom: SPACE.xl }}
      >
        <View>
          {crumbs.length > 0 ? (
            <View
              style={{
                flexDirection: 'row',
                flexWrap: 'wrap',
                justifyContent: 'space-between',
                alignItems: 'center',
                minHeight: TOUCH,
                columnGap: SPACE.m,
              }}
            >
              <Crumbs crumbs={crumbs} />
              {stateOnTop ? state : null}
            </View>
          ) : null}
          <View
            style={{
              flexDirection: 'row',
              alignItems: 'center',
              justifyContent: 'space-between',
              flexWrap: 'wrap',
              columnGap: SPACE.m,
              marginBottom: 6,
            }}
          >
            <View style={{ flexShrink: 1 }}>
              <Words size="title" bold heading={1} testID="page-title">
                {title}
              </Words>
            </View>
            {wide ? (
              <View style={{ flexDirection: 'row', gap: SPACE.m, alignItems: 'center' }}>
                {stateOnTop ? null : state}
                {tools}
                {actions ? (
                  <View style={{ flexDirection: 'row', gap: 12, minWidth: 400, justifyContent: 'flex-end' }}>
                    {actions}
                  </View>
                ) : null}
              </View>
            ) : stateOnTop ? null : (
              state
            )}
          </View>
          <RuleLine />
        </View>
        {!wide && tools ? <View style={{ flexDirection: 'row', gap: SPACE.s, flexWrap: 'wrap' }}>{tools}</View> : null}
        {children}
      </ScrollView>
      {!wide && actions ? (
        <View
          style={{
            gap: 12,
            padding: 12,
            backgroundColor: palette.paper,
            ...(onItsSide
              ? { width: 190, justifyContent: 'flex-end', borderLeftWidth: 1, borderLeftColor: palette.hairline }
              : {
                  flexDirection: 'row',
                  flexWrap: 'wrap',
                  paddingHorizontal: SPACE.m,
                  borderTopWidth: 1,
                  borderTopColor: palette.hairline,
                }),
          }}
        >
          {onItsSide ? <View style={{ gap: 12 }}>{actions}</View> : actions}
        </View>
      ) : null}
    </View>
  );
}

function Crumbs({ crumbs }: { crumbs: readonly Crumb[] }) {
  const palette = usePalette();
  return (
    <View
      style={{
        flexDirection: 'row',
        flexWrap: 'wrap',
        flexShrink: 1,
        alignItems: 'center',
        marginLeft: crumbs.length > 0 ? -8 : 0,
      }}
      role="navigation"
      aria-label="The way back"
    >
      {crumbs.map(({ label, href }, i) => (
        <Link key={label} href={href} asChild>
          <Pressable
            style={{ flexDirection: 'row', alignItems: 'center', minHeight: TOUCH, minWidth: TOUCH, paddingRight: 8 }}
          >
            <Icon name={i === 0 ? 'back' : 'next'} size={20} color={palette.steel} />
            <Words size="small" tone="steel">
              {label}
            </Words>
          </Pressable>
        </Link>
      ))}
    </View>
  );
}
