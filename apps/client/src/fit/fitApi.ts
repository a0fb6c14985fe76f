import { fitOperations } from '@even-bed/contract/fit/operations';
import { endpointsOf } from '../api/endpoints';

export const fitApi = endpointsOf(fitOperations);

export const { usePlansQuery, usePlanQuery, useWithdrawPlanMutation } = fitApi;
