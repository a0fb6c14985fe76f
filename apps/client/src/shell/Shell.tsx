import { Link, usePathname, useRouter, type Href } from 'expo-router';
import { useState, type ReactNode } from 'react';
import { Pressable, View } from 'react-native';
import { useJobAlarms } from '../care/useJobAlarms';
import { selectWaitingCount } from '../offline/waitingSlice';
import { useAppSelector } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Icon } from '../ui/Icon';
import type { IconName } from '../ui/iconPaths';
import { TOUCH, useIsWide, useOnItsSide, usePalette } from '../ui/theme';
import { clockTime, dayAndTime } from '../ui/formatTime';
import { useKeys } from '../ui/useKeys';
import { Words } from '../ui/Words';
import { KeysHelp } from './KeysHelp';
import { useTakeAlong } from './useTakeAlong';
import { useFollowing } from './useFollowing';
import { loadNewVersion, useNewVersion } from './newVersion';

interface Room {
  href: Href;
  path: string;
  name: string;
  icon: IconName;
}

/** Rooms that have work behind them. */
const ROOMS: readonly Room[] = [
  { href: '/bench', path: '/bench', name: 'Bench', icon: 'bench' },
  { href: '/floor', path: '/floor', name: 'Floor', icon: 'floor' },
  { href: '/rack', path: '/rack', name: 'Rack', icon: 'rack' },
  { href: '/book', path: '/book', name: 'Book', icon: 'book' },
];

/** Pages that belong to a room without lying under its address. */
const ALSO: readonly [string, string][] = [
  ['/floor', '/level'],
  ['/rack', '/labels'],
  ['/rack', '/scan'],
  ['/rack', '/kinds'],
  ['/bench', '/prints'],
  ['/bench', '/tools'],
  ['/bench', '/jobs'],
  ['/bench', '/procedures'],
  ['/bench', '/me'],
  ['/bench', '/people'],
  ['/bench', '/settings'],
];

/** The rooms: a bar at the bottom of a phone, a rail at the left of a wide screen. */
export function Shell({ children }: { children: ReactNode }) {
  const palette = usePalette();
  const wide = useIsWide();
  const onItsSide = useOnItsSide();
  const rail = wide || onItsSide;
  const router = useRouter();
  const person = useAppSelector((state) => state.people.person);
  const [keysShown, setKeysShown] = useState(false);
  useJobAlarms();
  useFollowing();
  useTakeAlong();
  useKeys({
    '?': () => setKeysShown(true),
    b: () => router.push('/bench'),
    f: () => router.push('/floor'),
    r: () => router.push('/rack'),
    k: () => router.push('/book'),
    o: () => router.push('/tools'),
  });
  const rooms = ROOMS.map((room) => <RoomLink key={room.name} room={room} rail={rail} />);
  return (
    <View style={{ flex: 1, flexDirection: rail ? 'row' : 'column', backgroundColor: palette.paper }}>
      {wide ? (
        <View
          role="navigation"
          aria-label="Rooms"
          style={{
            width: 92,
            backgroundColor: palette.raised,
            borderRightWidth: 1,
            borderRightColor: palette.hairline,
            paddingTop: 18,
            gap: 4,
          }}
        >
          <Words bold align="center">
            {'Even\nBed'}
          </Words>
          <View style={{ height: 14 }} />
          {rooms}
          <View style={{ flex: 1 }} />
          <Link href="/me" asChild>
            <Pressable style={{ alignItems: 'center', padding: 8, minHeight: TOUCH }} testID="to-me">
              <Icon name="person" color={palette.steel} />
              <Words size="small" tone="steel" align="center">
                {person?.name ?? ''}
              </Words>
            </Pressable>
          </Link>
          <Pressable
            role="button"
            onPress={() => setKeysShown(true)}
            style={{ alignItems: 'center', padding: 12, minHeight: TOUCH }}
            testID="show-keys"
          >
            <Icon name="keys" color={palette.steel} />
            <Words size="small" tone="steel">
              Keys
            </Words>
          </Pressable>
        </View>
      ) : null}
      {onItsSide ? (
        <View
          role="navigation"
          aria-label="Rooms"
          style={{
            width: 76,
            justifyContent: 'space-evenly',
            backgroundColor: palette.raised,
            borderRightWidth: 1,
            borderRightColor: palette.hairline,
          }}
        >
          {rooms}
        </View>
      ) : null}
      <View style={{ flex: 1 }} role="main">
        <NewVersion />
        <SendState />
        {children}
      </View>
      {rail ? null : (
        <View
          role="navigation"
          aria-label="Rooms"
          style={{
            flexDirection: 'row',
            backgroundColor: palette.raised,
            borderTopWidth: 1,
            borderTopColor: palette.hairline,
          }}
        >
          {rooms}
        </View>
      )}
      <KeysHelp open={keysShown} onClose={() => setKeysShown(false)} />
    </View>
  );
}

function RoomLink({ room, rail }: { room: Room; rail: boolean }) {
  const palette = usePalette();
  const pathname = usePathname();
  const here =
    pathname.startsWith(room.path) || ALSO.some(([path, start]) => path === room.path && pathname.startsWith(start));
  const mark = here ? palette.ink : 'transparent';
  return (
    <Link href={room.href} asChild>
      <Pressable
        aria-current={here ? 'page' : undefined}
        testID={`room-${room.name.toLowerCase()}`}
        style={{
          flex: rail ? undefined : 1,
          alignItems: 'center',
          justifyContent: 'center',
          minHeight: 60,
          gap: 2,
          ...(rail
            ? { borderLeftWidth: 4, borderLeftColor: mark, minHeight: 66 }
            : { borderTopWidth: 4, borderTopColor: mark }),
        }}
      >
        <Icon name={room.icon} color={here ? palette.ink : palette.steel} />
        <Words size="small" bold={here} tone={here ? 'ink' : 'steel'}>
          {room.name}
        </Words>
      </Pressable>
    </Link>
  );
}

/** Says that the server has a newer app than this page runs; it is loaded when the person says so. */
function NewVersion() {
  const palette = usePalette();
  const newer = useNewVersion();
  const [loading, setLoading] = useState(false);
  if (!newer) return null;
  return (
    <View
      role="status"
      testID="new-version"
      style={{
        flexDirection: 'row',
        flexWrap: 'wrap',
        gap: 12,
        padding: 8,
        paddingHorizontal: 16,
        backgroundColor: palette.raised,
        borderBottomWidth: 1,
        borderBottomColor: palette.hairline,
        alignItems: 'center',
      }}
    >
      <View style={{ flexShrink: 1 }}>
        <Words size="small">A newer version of the app is here. What you typed is kept on this device.</Words>
      </View>
      <ActionButton
        label="Load it"
        busy={loading}
        onPress={() => {
          setLoading(true);
          void loadNewVersion();
        }}
        testID="load-version"
      />
    </View>
  );
}

/** Says when the server doesn't answer: since when what is seen is old, what waits, and what this device can't keep. */
function SendState() {
  const { answers, unkept, keeping, typedKept } = useAppSelector((state) => state.waiting);
  // What is on this page alone has a line of its own.
  const waiting = useAppSelector(selectWaitingCount) - unkept.length;
  const oldSince = useAppSelector((state) => state.connection.oldSince);
  const entries = (count: number) => (count === 1 ? '1 entry is' : `${count} entries are`);
  const away = oldSince !== null || (!answers && waiting > 0);
  return (
    <>
      {unkept.length > 0 ? (
        <Line testID="not-kept" icon="stop">
          {`${keeping === 'full' ? 'This device has no room left' : 'This device keeps nothing'}: ${entries(unkept.length)} on this page alone. Leave it open until ${unkept.length === 1 ? 'it is' : 'they are'} sent${keeping === 'full' ? ', or make room on the device' : ''}.`}
        </Line>
      ) : null}
      {typedKept ? null : (
        <Line testID="typed-not-kept" icon="stop">
          This device has no room left: what you type is on this page alone. Make room on the device, or finish here
          before you leave.
        </Line>
      )}
      {away ? (
        <Line testID={waiting > 0 ? 'waiting-to-send' : 'views-old'} icon="waiting">
          {[
            'The server doesn’t answer.',
            ...(oldSince === null ? [] : [`What you see is from ${whenSeen(oldSince)}.`]),
            ...(waiting === 0 ? [] : [`${entries(waiting)} kept here and sent when it is back.`]),
          ].join(' ')}
        </Line>
      ) : null}
    </>
  );
}

const DAY = 86_400_000;
/** The time of day, with the day when it is not within this one. */
const whenSeen = (at: number) => (Date.now() - at < DAY ? clockTime(at) : dayAndTime(at));

function Line({ testID, icon, children }: { testID: string; icon: IconName; children: string }) {
  const palette = usePalette();
  return (
    <View
      role="status"
      testID={testID}
      style={{
        flexDirection: 'row',
        gap: 10,
        padding: 10,
        paddingHorizontal: 16,
        backgroundColor: palette.dueWash,
        alignItems: 'center',
      }}
    >
      <View style={{ flexShrink: 0 }}>
        <Icon name={icon} />
      </View>
      <View style={{ flexShrink: 1 }}>
        <Words size="small">{children}</Words>
      </View>
    </View>
  );
}
