// The arrows of the house (docs/architecture.md) as lint rules: client → contract → core, server → contract → core.
// On the server and in the client a room imports from rooms below it alone: on the server of those their stores; in the
// client what draws nothing of another area (its slice, endpoints, functions: files in lower case), never its screens.

const forbid = (files, patterns, ignores = []) => ({
  files,
  ignores,
  rules: { 'no-restricted-imports': ['error', { patterns }] },
});
const refuse = (group, message) => ({ group, message });

const noServer = refuse(
  ['@even-bed/server', '@even-bed/server/*', '**/apps/server/**'],
  'This may not reach into the server.',
);
const noClient = refuse(
  ['@even-bed/client', '@even-bed/client/*', '**/apps/client/**'],
  'This may not reach into the client.',
);
const pure = refuse(
  [
    'node:*',
    'fs',
    'path',
    'react',
    'react-*',
    '@react-*',
    'expo*',
    'koa*',
    '@koa/*',
    'knex',
    'better-sqlite3',
    '@reduxjs/*',
    'joi',
  ],
  'The core holds pure computation: no I/O, no interface, no validation of what crosses the wire.',
);

/**
 * Rooms of the client from the ground to the roof: a room imports from those below it alone, so that there is no circle.
 * ui draws; offline keeps; state is this device's; floor, bench and shell put together what areas show.
 */
export const CLIENT_ROOMS = [
  'ui',
  'api',
  'workers',
  'offline',
  'state',
  'people',
  'rounds',
  'fleet',
  'book',
  'wear',
  'surfaces',
  'fit',
  'level',
  'care',
  'floor',
  'bench',
  'shell',
];
/** Rooms that show an area: of each other they use what draws nothing (files in lower case), never screens or parts. */
const SHOWING = ['people', 'rounds', 'fleet', 'book', 'wear', 'surfaces', 'fit', 'level', 'care'];

const clientRoom = (room, at) => {
  const above = CLIENT_ROOMS.slice(at + 1);
  const patterns = [noServer];
  if (room === 'ui') patterns.push(refuse(['@even-bed/contract'], 'The signature parts draw; they know no wire.'));
  if (above.length > 0)
    patterns.push({
      regex: `^(\\.\\./)+(${above.join('|')})/`,
      message: 'This room stands below that one: let what both need come down.',
    });
  const others = SHOWING.filter((other) => other !== room);
  if (SHOWING.includes(room))
    patterns.push({
      regex: `^(\\.\\./)+(${others.join('|')})/(?![a-z]\\w*$)`,
      caseSensitive: true,
      message: "Use another area's slice, endpoints and functions, never its screens or parts.",
    });
  return forbid([`apps/client/src/${room}/**/*.{ts,tsx}`], patterns, ['**/*.test.{ts,tsx}']);
};

/**
 * Rooms of the server from the ground to the roof: a room imports from those below it alone, so that there is no circle.
 * db knows SQLite, kernel is what every room stands on, app is what stands on every room.
 */
export const SERVER_ROOMS = [
  'db',
  'kernel',
  'tls',
  'tags',
  'manner',
  'book',
  'fleet',
  'people',
  'rounds',
  'wear',
  'surfaces',
  'fit',
  'level',
  'care',
  'machines',
  'shop',
  'spine',
  'demo',
  'app',
];
/** Rooms that are used whole; of the others only stores and use cases. */
const OPEN_ROOMS = ['db', 'kernel'];

const serverRoom = (room, at) => {
  const above = SERVER_ROOMS.slice(at + 1);
  const closed = SERVER_ROOMS.slice(0, at).filter((below) => !OPEN_ROOMS.includes(below));
  const patterns = [noClient];
  if (above.length > 0)
    patterns.push({
      regex: `^(\\.\\./)+(${above.join('|')})/`,
      message: 'This room stands below that one: let what both need come down, or tell it by an event.',
    });
  // The roof brings everything together, and the demo does what people do.
  if (closed.length > 0 && room !== 'app' && room !== 'demo')
    patterns.push({
      regex: `^(\\.\\./)+(${closed.join('|')})/(?!store$|mount$|hears$|\\w+Store$)`,
      message: "Use another room's store or use case, never its routes or jobs.",
    });
  return forbid([`apps/server/src/${room}/**/*.ts`], patterns, ['**/*.test.ts', '**/*.fixture.ts']);
};

export const arrows = [
  forbid(
    ['packages/core/src/**/*.ts'],
    [
      noServer,
      noClient,
      pure,
      refuse(['@even-bed/*'], 'The core stands at the bottom: it imports no other package of the house.'),
    ],
    ['**/*.test.ts', '**/*.fixture.ts'],
  ),
  forbid(
    ['packages/contract/src/**/*.ts'],
    [
      noServer,
      noClient,
      refuse(['@even-bed/words', '@even-bed/words/*'], 'What crosses the wire is facts; words are made from them.'),
    ],
    ['**/*.test.ts'],
  ),
  forbid(['packages/words/src/**/*.ts'], [noServer, noClient]),
  ...CLIENT_ROOMS.map(clientRoom),
  ...SERVER_ROOMS.map(serverRoom),
];
