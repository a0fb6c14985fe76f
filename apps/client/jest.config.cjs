const path = require('node:path');

// jest-expo looks for the Babel config in the working directory, which is the root: name it.
const preset = require('jest-expo/jest-preset');
const configFile = path.join(__dirname, 'babel.config.js');
const transform = Object.fromEntries(
  Object.entries(preset.transform).map(([pattern, use]) => [
    pattern,
    Array.isArray(use) && String(use[0]).includes('babel-jest')
      ? [use[0], { ...use[1], configFile }]
      : use === 'babel-jest'
        ? ['babel-jest', { configFile }]
        : use,
  ]),
);
const esModules = [
  '(jest-)?react-native',
  '@react-native',
  'expo',
  '@expo',
  'react-native-svg',
  'd3-[a-z]+',
  'internmap',
  'delaunator',
  'robust-predicates',
  'uuid',
  'immer',
  '@reduxjs',
  'react-redux',
];

module.exports = {
  displayName: 'client',
  preset: 'jest-expo',
  rootDir: __dirname,
  testMatch: ['<rootDir>/src/**/*.test.ts?(x)'],
  transform: { ...transform, '\\.mjs$': ['babel-jest', { configFile }] },
  transformIgnorePatterns: [`/node_modules/(?!(.pnpm|${esModules.join('|')}))`],
};
