// The real interface in Chromium, through the real server and the real export of the client.
export default {
  rootDir: import.meta.dirname,
  roots: ['<rootDir>/e2e'],
  testEnvironment: 'node',
  testMatch: ['**/*.e2e.ts'],
  testTimeout: 120_000,
  maxWorkers: 2,
  globalTeardown: '<rootDir>/e2e/afterAll.mjs',
  transform: { '\\.m?[jt]s$': ['babel-jest', { configFile: './babel.node.cjs' }] },
};
