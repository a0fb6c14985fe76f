import { noteOperations } from '@even-bed/contract/level/noteOperations';
import { endpointsOf } from '../api/endpoints';

export const noteApi = endpointsOf(noteOperations);

export const { useGaugesQuery, useLevelNotesQuery, useLevelsQuery, useZeroQuery } = noteApi;
