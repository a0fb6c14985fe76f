import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import type Joi from 'joi';
import { createGenerator, type Schema } from 'ts-json-schema-generator';
import * as contract from '../index';

const SRC = path.join(__dirname, '..');
const read = (file: string) => fs.readFileSync(path.join(SRC, file), 'utf8');

/** Every schema that is said to be of a type: "export const areaWriteSchema = record<AreaWrite>(…". */
const twins = (fs.readdirSync(SRC, { recursive: true }) as string[])
  .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
  .flatMap((file) => [...read(file).matchAll(/export const (\w+) = record<(\w+)>\(/g)])
  .map(([, schema, type]) => [schema!, type!] as const);

const generatorOf = (file: string) =>
  createGenerator({
    path: path.join(SRC, file),
    tsconfig: path.join(SRC, '../tsconfig.json'),
    skipTypeCheck: true,
    expose: 'all',
  });
const ours = generatorOf('index.ts');
/** Types that are the core's own. */
const CORES = ['ParseOptions', 'Procedure'];
const cores = generatorOf('../../core/src/index.ts');

interface Typed {
  required: string[];
  optional: string[];
  /** May be null. */
  empty: string[];
  /** What a field must be one of. */
  choices: Record<string, string[]>;
}

type Node = Exclude<Schema, boolean> & { $ref?: string };

function ofType(name: string): Typed {
  const schema = (CORES.includes(name) ? cores : ours).createSchema(name);
  const resolve = (node: Node): Node =>
    node.$ref === undefined
      ? node
      : resolve(schema.definitions![decodeURIComponent(node.$ref.replace('#/definitions/', ''))] as Node);
  const all = (node: Node): Node[] => {
    const one = resolve(node);
    return one.anyOf ? one.anyOf.flatMap((part) => all(part as Node)) : [one];
  };
  const root = resolve(schema as Node);
  const fields = Object.entries(root.properties ?? {}).map(([key, node]) => [key, all(node as Node)] as const);
  const required = root.required ?? [];
  const isNull = ({ type, enum: values, const: value }: Node) =>
    type === 'null' || (Array.isArray(type) && type.includes('null')) || !!values?.includes(null) || value === null;
  const choicesOf = (nodes: Node[]) => {
    const words = nodes.flatMap(({ enum: values, const: value }) => (value === undefined ? (values ?? []) : [value]));
    return words.filter((word): word is string => typeof word === 'string').sort();
  };
  return {
    required: [...required].sort(),
    optional: fields
      .map(([key]) => key)
      .filter((key) => !required.includes(key))
      .sort(),
    empty: fields
      .filter(([, nodes]) => nodes.some(isNull))
      .map(([key]) => key)
      .sort(),
    choices: Object.fromEntries(
      fields.map(([key, nodes]) => [key, choicesOf(nodes)]).filter(([, words]) => words!.length > 0),
    ),
  };
}

interface Said {
  flags?: { presence?: string; default?: unknown; only?: boolean };
  allow?: unknown[];
  keys?: Record<string, Said>;
  matches?: { schema?: Said }[];
}

function ofSchema(schema: Joi.Schema): Typed {
  const fields = Object.entries((schema.describe() as Said).keys ?? {});
  const isNull = ({ allow, matches }: Said): boolean =>
    !!allow?.includes(null) || !!matches?.some((match) => match.schema && isNull(match.schema));
  // What is filled in when it is left out is there for whoever reads it.
  const isThere = ({ flags }: Said) => flags?.presence === 'required' || (flags !== undefined && 'default' in flags);
  const choicesOf = ({ flags, allow = [] }: Said) =>
    flags?.only ? allow.filter((word): word is string => typeof word === 'string').sort() : [];
  const keys = (which: (said: Said) => boolean) =>
    fields
      .filter(([, said]) => which(said))
      .map(([key]) => key)
      .sort();
  return {
    required: keys(isThere),
    optional: keys((said) => !isThere(said)),
    empty: keys(isNull),
    choices: Object.fromEntries(
      fields.map(([key, said]) => [key, choicesOf(said)]).filter(([, words]) => words!.length > 0),
    ),
  };
}

test('there are schemas to look at', () => expect(twins.length).toBeGreaterThan(40));

test.each(twins)('%s takes what %s is: the same fields, needed and empty alike', (schemaName, typeName) => {
  const schema = (contract as unknown as Record<string, Joi.Schema>)[schemaName]!;
  const said = ofSchema(schema);
  const typed = ofType(typeName);
  // Where one of the two is plain text, the other's list narrows it.
  const both = (choices: Typed['choices'], other: Typed['choices']) =>
    Object.fromEntries(Object.entries(choices).filter(([key]) => other[key]));
  expect({ ...said, choices: both(said.choices, typed.choices) }).toEqual({
    ...typed,
    choices: both(typed.choices, said.choices),
  });
});

test('the shapes of answers are those of their types', () => {
  const checked = spawnSync(process.execPath, [path.join(SRC, '../../../scripts/describeAnswers.mjs'), '--check'], {
    encoding: 'utf8',
  });
  expect(checked.stderr).toBe('');
  expect(checked.status).toBe(0);
});
