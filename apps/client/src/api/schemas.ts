// What checks input. It brings its validator along: always reached by `loadSchemas`, so that only who types loads it.
export { kindWriteSchema, machineFactsSchema, procedureSchema, TOOL_SCHEMAS, validate } from '@even-bed/contract';
