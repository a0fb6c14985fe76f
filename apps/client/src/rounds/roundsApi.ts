import { ruleOperations } from '@even-bed/contract/rounds/operations';
import { endpointsOf } from '../api/endpoints';

export const roundsApi = endpointsOf(ruleOperations);

export const { useSaveRuleMutation } = roundsApi;
