import fs from 'node:fs';
import path from 'node:path';
import { GROUPS } from '@even-bed/core';

const ROOT = path.join(__dirname, '..');
/** Where groups may be told apart one by one: their registry, their drawings, and documents and data that name things. */
const MAY = [
  /^packages\/core\/src\/surfaces\/groups\.ts$/,
  /^apps\/client\/src\/ui\/GroupGlyph\.tsx$/,
  /^packages\/core\/src\/care\/procedures\//,
  /^packages\/core\/src\/fit\/compatib/,
  /^packages\/words\/src\/compat\.ts$/,
  /^apps\/server\/src\/db\/migrations\//,
  /^apps\/server\/src\/demo\//,
];

test('a new group of surfaces is one entry and its drawing: no other file tells the groups apart', () => {
  const files = ['packages', 'apps'].flatMap((folder) =>
    fs
      .readdirSync(path.join(ROOT, folder), { recursive: true, encoding: 'utf8' })
      .map((file) => `${folder}/${file.split(path.sep).join('/')}`)
      .filter((file) => /\/src\/.*\.tsx?$/.test(file) && !/node_modules|\.(test|fixture)\./.test(file)),
  );
  expect(files.length).toBeGreaterThan(300);
  const telling = files.filter((file) => {
    const text = fs.readFileSync(path.join(ROOT, file), 'utf8');
    return (
      GROUPS.filter((group) => text.includes(`'${group}'`) || new RegExp(`^\\s*${group}:`, 'm').test(text)).length > 4
    );
  });
  expect(telling.filter((file) => !MAY.some((known) => known.test(file)))).toEqual([]);
});
