import { scanOperations } from '@even-bed/contract/machines/operations';
import { endpointsOf } from '../api/endpoints';

export const scanApi = endpointsOf(scanOperations);

export const { useStartScanMutation, useStopScanMutation } = scanApi;
