// What checks input. It brings its validator along: always reached by `loadSchemas`, so that only who types loads it. Each by its
// own file: what the others stand on would come along.
export { procedureSchema } from '@even-bed/contract/care/jobs';
export { TOOL_SCHEMAS } from '@even-bed/contract/fit/records';
export { machineFactsSchema } from '@even-bed/contract/fleet/records';
export { validate } from '@even-bed/contract/kit/validate';
export { kindWriteSchema } from '@even-bed/contract/surfaces/records';
