import { careOperations } from '@even-bed/contract/care/operations';
import { endpointsOf } from '../api/endpoints';

export const careApi = endpointsOf(careOperations);

export const { useInspectionsQuery, usePhotosQuery, useSendPhotoMutation } = careApi;

/** Of what: a surface or a machine. */
export type Subject = { surfaceId: string } | { machineId: string };

/** Address of a photo's file. */
export const photoAddress = (id: string, size: 'small' | 'full') => `/api/photos/${id}/file?size=${size}`;
