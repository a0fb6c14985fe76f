// The arrows of the house (docs/architecture.md) as lint rules: client → contract → core, server → contract → core.
// An area may use another area's server store, and in the client what draws nothing (its slice, endpoints, functions:
// files in lower case), never its routes, screens or parts.

export const AREAS = ['fleet', 'surfaces', 'fit', 'level', 'care', 'wear', 'rounds', 'stock', 'book', 'people', 'shop'];

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

const clientArea = (area) => {
  const others = AREAS.filter((other) => other !== area);
  return forbid(
    [`apps/client/src/${area}/**/*.{ts,tsx}`],
    [
      noServer,
      {
        regex: `^(\\.\\./)+(${others.join('|')})/(?![a-z]\\w*$)`,
        caseSensitive: true,
        message: "Use another area's slice, endpoints and functions, never its screens or parts.",
      },
    ],
  );
};

const serverArea = (area) => {
  const others = AREAS.filter((other) => other !== area);
  return forbid(
    [`apps/server/src/${area}/**/*.ts`],
    [
      noClient,
      {
        regex: `^(\\.\\./)+(${others.join('|')})/(?!store$|mount$|\\w+Store$)`,
        message: "Use another area's store or use case, never its routes or jobs.",
      },
    ],
    ['**/*.test.ts'],
  );
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
  forbid(['packages/contract/src/**/*.ts'], [noServer, noClient]),
  forbid(
    ['apps/client/src/ui/**/*.{ts,tsx}'],
    [
      noServer,
      refuse(['@even-bed/contract'], 'The signature parts draw; they know no wire.'),
      { regex: `^(\\.\\./)+(${AREAS.join('|')}|api)/`, message: 'The signature parts know no area.' },
    ],
  ),
  ...AREAS.map(clientArea),
  ...AREAS.map(serverArea),
];
