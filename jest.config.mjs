// One run for everything that needs no browser: the sums, the contract, the server, the client's parts.
const esModules = ['d3-[a-z]+', 'internmap', 'delaunator', 'robust-predicates'];
/** Looked up in a test's sandbox each of these is slow: the modules are handed them instead. */
const sandboxInjectedGlobals = [
  'Math',
  'Number',
  'Infinity',
  'Array',
  'Object',
  'Map',
  'Set',
  'Float64Array',
  'String',
  'JSON',
  'Int32Array',
  'Uint8Array',
];
const node = (name, folder, injected = sandboxInjectedGlobals) => ({
  displayName: name,
  sandboxInjectedGlobals: injected,
  rootDir: import.meta.dirname,
  roots: [`<rootDir>/${folder}`],
  testEnvironment: 'node',
  testMatch: ['**/*.test.ts'],
  transform: { '\\.m?[jt]s$': ['babel-jest', { configFile: './babel.node.cjs' }] },
  transformIgnorePatterns: [`/node_modules/(?!(${esModules.join('|')})/)`],
});

export default {
  // Slow machines are no failure: a test that hangs still ends.
  testTimeout: 60_000,
  // By itself jest leaves one core idle, which is half of a small machine.
  maxWorkers: '100%',
  projects: [
    node('core', 'packages/core/src'),
    node('contract', 'packages/contract/src'),
    node('words', 'packages/words/src'),
    // A part by others names a class of its own Set.
    node(
      'server',
      'apps/server/src',
      sandboxInjectedGlobals.filter((name) => name !== 'Set'),
    ),
    node('house', 'scripts'),
    '<rootDir>/apps/client/jest.config.cjs',
  ],
};
