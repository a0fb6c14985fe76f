// Makes packages/contract/src/answers.schema.json: the shapes of all answers as JSON Schema, from their types.
import fs from 'node:fs';
import path from 'node:path';
import { createGenerator } from 'ts-json-schema-generator';
import prettier from 'prettier';
import { ROOT } from './ensure.mjs';

export const FILE = path.join(ROOT, 'packages/contract/src/answers.schema.json');

/** The text of the file as it should be. */
export async function describeAnswers() {
  const schema = createGenerator({
    path: path.join(ROOT, 'packages/contract/src/answers.ts'),
    tsconfig: path.join(ROOT, 'packages/contract/tsconfig.json'),
    type: 'Answers',
    skipTypeCheck: true,
    additionalProperties: false,
    sortProps: true,
    topRef: false,
  }).createSchema('Answers');
  return prettier.format(JSON.stringify(schema), { parser: 'json', ...(await prettier.resolveConfig(FILE)) });
}

if (process.argv[1] === import.meta.filename) {
  const text = await describeAnswers();
  if (!process.argv.includes('--check')) fs.writeFileSync(FILE, text);
  else if (fs.readFileSync(FILE, 'utf8') !== text) {
    console.error('packages/contract/src/answers.schema.json is older than the types of the answers: npm run describe');
    process.exit(1);
  }
}
