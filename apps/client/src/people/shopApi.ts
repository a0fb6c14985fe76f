import { shopOperations } from '@even-bed/contract/shop/operations';
import { endpointsOf } from '../api/endpoints';

export const shopApi = endpointsOf(shopOperations);

export const { useImportShopMutation, useLastBackupQuery, useReachQuery } = shopApi;
