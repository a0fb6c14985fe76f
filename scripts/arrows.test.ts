import fs from 'node:fs';
import path from 'node:path';
import { Linter } from 'eslint';
import { arrows, CLIENT_ROOMS, SERVER_ROOMS } from './arrows.mjs';

/** What the lint says of one import, as if it stood in a file of that name. */
function refusedIn(file: string, specifier: string): boolean {
  const linter = new Linter({ cwd: path.join(__dirname, '..') });
  const code = `import { thing } from '${specifier}';\nexport const other = thing;\n`;
  return linter
    .verify(code, arrows as Linter.Config[], { filename: file })
    .some(({ ruleId }) => ruleId === 'no-restricted-imports');
}

describe('the arrows of the house', () => {
  test.each([
    ['packages/core/src/level/x.ts', '@even-bed/contract'],
    ['packages/core/src/level/x.ts', 'react'],
    ['packages/core/src/level/x.ts', 'node:fs'],
    ['packages/contract/src/level.ts', '@even-bed/server'],
    ['packages/contract/src/level/events.ts', '@even-bed/words'],
    ['packages/core/src/level/x.ts', '@even-bed/words'],
    ['packages/words/src/level.ts', '@even-bed/server'],
    ['apps/server/src/level/x.ts', '../rounds/hears/x'],
    ['apps/client/src/ui/BedPlan.tsx', '../level/LevelCheckScreen'],
    ['apps/client/src/ui/BedPlan.tsx', '@even-bed/contract'],
    ['apps/client/src/level/x.tsx', '../fleet/MachineFactList'],
    ['apps/client/src/fleet/x.tsx', '../level/levelApi'],
    ['apps/client/src/offline/x.ts', '../state/store'],
    ['apps/client/src/api/x.ts', '../fleet/fleetApi'],
    ['apps/client/src/rounds/x.tsx', '../bench/BenchScreen'],
    ['apps/client/src/level/x.tsx', '@even-bed/server'],
    ['apps/server/src/level/x.ts', '../fleet/routes'],
    ['apps/server/src/fleet/x.ts', '../surfaces/store'],
    ['apps/server/src/kernel/x.ts', '../book/store'],
    ['apps/server/src/db/migrations/x.ts', '../../kernel/problem'],
    ['apps/server/src/shop/x.ts', '../app/routes'],
  ])('%s may not import %s', (file, specifier) => {
    expect(refusedIn(file, specifier)).toBe(true);
  });

  test.each([
    ['packages/contract/src/level.ts', '@even-bed/core'],
    ['apps/client/src/level/x.tsx', '../fleet/fleetApi'],
    ['apps/client/src/level/x.tsx', '../ui/BedPlan'],
    ['apps/client/src/floor/x.tsx', '../fleet/MachineFactList'],
    ['apps/client/src/state/x.ts', '../offline/waiting'],
    ['apps/client/src/level/x.tsx', './readLater'],
    ['apps/server/src/level/x.ts', '../fleet/store'],
    ['apps/server/src/fleet/x.ts', '../kernel/book'],
    ['apps/server/src/app/x.ts', '../shop/routes'],
  ])('%s may import %s', (file, specifier) => {
    expect(refusedIn(file, specifier)).toBe(false);
  });
});

const roomsIn = (folder: string) =>
  fs.readdirSync(folder, { withFileTypes: true }).flatMap((entry) => (entry.isDirectory() ? [entry.name] : []));
const ROOMS = [
  ['apps/server/src', SERVER_ROOMS],
  ['apps/client/src', CLIENT_ROOMS],
] as const;

test.each(ROOMS)('every room of %s has its place in the order', (folder, rooms) =>
  expect([...rooms].sort()).toEqual(roomsIn(path.join(__dirname, '..', folder)).sort()),
);

// The lint sees what is imported at once; what is loaded later is an arrow too.
test.each(ROOMS)('what %s loads later keeps the order as well', (folder, rooms) => {
  const root = path.join(__dirname, '..', folder);
  const files = fs.readdirSync(root, { recursive: true, encoding: 'utf8' });
  const wrong = files
    .filter((file) => /\.tsx?$/.test(file) && !/\.(test|fixture)\./.test(file))
    .flatMap((file) => {
      const [room] = file.split(path.sep);
      const text = fs.readFileSync(path.join(root, file), 'utf8');
      return [...text.matchAll(/import\('((?:\.\.\/)+[^']+)'\)/g)].flatMap(([, to]) => {
        const [other] = path.relative(root, path.resolve(root, path.dirname(file), to!)).split(path.sep);
        return rooms.indexOf(other!) > rooms.indexOf(room!) ? [`${file} → ${to}`] : [];
      });
    });
  expect(wrong).toEqual([]);
});
