import { levelOperations } from '@even-bed/contract/level/operations';
import { endpointsOf } from '../api/endpoints';

export const levelApi = endpointsOf(levelOperations);

export const { useCheckQuery, useChecksQuery, useLearnedQuery } = levelApi;
