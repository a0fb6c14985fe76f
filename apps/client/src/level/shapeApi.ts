import { shapeOperations } from '@even-bed/contract/level/shapeOperations';
import { endpointsOf } from '../api/endpoints';

export const shapeApi = endpointsOf(shapeOperations);

export const { useMapsQuery, useShapesQuery } = shapeApi;
