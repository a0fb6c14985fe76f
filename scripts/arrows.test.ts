import { ESLint } from 'eslint';

/** What the lint says of one import, as if it stood in a file of that name. */
async function refusedIn(file: string, specifier: string): Promise<boolean> {
  const eslint = new ESLint({ cwd: `${__dirname}/..`, overrideConfigFile: `${__dirname}/../eslint.config.mjs` });
  const [result] = await eslint.lintText(`import { thing } from '${specifier}';\nexport const other = thing;\n`, {
    filePath: file,
  });
  return result!.messages.some(({ ruleId }) => ruleId === 'no-restricted-imports');
}

describe('the arrows of the house', () => {
  test.each([
    ['packages/core/src/level/x.ts', '@even-bed/contract'],
    ['packages/core/src/level/x.ts', 'react'],
    ['packages/core/src/level/x.ts', 'node:fs'],
    ['packages/contract/src/level.ts', '@even-bed/server'],
    ['apps/client/src/ui/BedPlan.tsx', '../level/LevelCheckScreen'],
    ['apps/client/src/ui/BedPlan.tsx', '@even-bed/contract'],
    ['apps/client/src/level/x.tsx', '../fleet/MachineScreen'],
    ['apps/client/src/level/x.tsx', '@even-bed/server'],
    ['apps/server/src/level/x.ts', '../fleet/routes'],
  ])('%s may not import %s', async (file, specifier) => {
    expect(await refusedIn(file, specifier)).toBe(true);
  });

  test.each([
    ['packages/contract/src/level.ts', '@even-bed/core'],
    ['apps/client/src/level/x.tsx', '../fleet/fleetApi'],
    ['apps/client/src/level/x.tsx', '../ui/BedPlan'],
    ['apps/client/src/level/x.tsx', './readLater'],
    ['apps/server/src/level/x.ts', '../fleet/store'],
  ])('%s may import %s', async (file, specifier) => {
    expect(await refusedIn(file, specifier)).toBe(false);
  });
});
