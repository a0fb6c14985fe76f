// The tests that a mutation run asks: those of one package or app, without the few that take minutes or start processes.
import all from './jest.config.mjs';

const name = process.env.MUTATE_PROJECT ?? 'core';
const project = all.projects.find((known) => known.displayName === name);
const { displayName: _, ...config } = project;

export default {
  ...config,
  testTimeout: 60_000,
  testEnvironment: '@stryker-mutator/jest-runner/jest-env/node',
  testPathIgnorePatterns: ['model.test', 'takeAlong.test', 'hostileRequests.test', 'loadDemo.test', 'safeKeeping.test'],
};
