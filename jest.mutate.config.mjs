// The tests that a mutation run asks: those of one package or of some rooms, without the few that take minutes or start
// processes.
import all from './jest.config.mjs';

const name = process.env.MUTATE_PROJECT ?? 'core';
const project = all.projects.find((known) => known.displayName === name);
const { displayName: _, ...config } = project;
const rooms = (process.env.MUTATE_TESTS ?? '').split(',').filter(Boolean);

export default {
  ...config,
  ...(rooms.length > 0 ? { testMatch: rooms.map((room) => `**/src/${room}*.test.ts`) } : {}),
  testTimeout: 60_000,
  testEnvironment: '@stryker-mutator/jest-runner/jest-env/node',
  testPathIgnorePatterns: ['model.test', 'takeAlong.test', 'hostileRequests.test', 'loadDemo.test', 'safeKeeping.test'],
};
