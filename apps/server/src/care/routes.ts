import fs from 'node:fs/promises';
import {
  inspectionWriteSchema,
  PHOTO_LIMIT,
  PHOTO_TYPES,
  photoFileSchema,
  photoUploadSchema,
  subjectQuerySchema,
  type InspectionWrite,
  type PhotoUpload,
} from '@even-bed/contract';
import { atField, notFound } from '../kernel/problem';
import type { Answer, Call, Route } from '../kernel/route';
import { dropPhoto, keepPhoto, photoPath, type PhotoSize } from './photoFile';
import { findPhoto, listInspections, listPhotos, saveInspection, savePhoto, type Subject } from './store';

async function takePhoto({ db, params, query, upload, photoFolder }: Call): Promise<Answer> {
  const id = params['id']!;
  const write = query as unknown as PhotoUpload;
  if (!write.surfaceId && !write.machineId)
    throw atField('surfaceId', 'Say what the photo shows: a surface or a machine.');
  const before = await findPhoto(db, id);
  if (before) return { body: before };
  const file = await keepPhoto(photoFolder, id, upload!);
  try {
    return { status: 201, body: await db.transaction((trx) => savePhoto(trx, id, write, file)) };
  } catch (error) {
    // Refused, it leaves nothing behind; unless the same photo was written down meanwhile.
    if (!(await findPhoto(db, id))) await dropPhoto(photoFolder, id);
    throw error;
  }
}

async function photoFile({ db, params, query, photoFolder }: Call): Promise<Answer> {
  const photo = await findPhoto(db, params['id']!);
  if (!photo) throw notFound('This photo');
  const { size } = query as { size: PhotoSize };
  const body = await fs.readFile(photoPath(photoFolder, photo.id, size)).catch(() => {
    throw notFound('The file of this photo');
  });
  return { body, file: { type: 'image/jpeg', forever: true } };
}

export const careRoutes: Route[] = [
  {
    method: 'get',
    path: '/inspections',
    area: 'care',
    access: 'looker',
    summary: 'What was seen of a surface or a machine, the latest first',
    answers: 'items: the inspections.',
    query: subjectQuerySchema,
    handle: async ({ db, query }) => ({
      body: { items: await listInspections(db, query as Subject, query['limit'] as number) },
    }),
  },
  {
    method: 'put',
    path: '/inspections/:id',
    area: 'care',
    access: 'technician',
    summary: 'Write down what was seen',
    answers: 'kept.',
    body: inspectionWriteSchema,
    handle: async ({ db, params, body }) => {
      await saveInspection(db, params['id']!, body as InspectionWrite);
      return { body: { kept: true } };
    },
  },
  {
    method: 'get',
    path: '/photos',
    area: 'care',
    access: 'looker',
    summary: 'Photos of a surface or a machine, the latest first',
    answers: 'items: the photos.',
    query: subjectQuerySchema,
    handle: async ({ db, query }) => ({
      body: { items: await listPhotos(db, query as Subject, query['limit'] as number) },
    }),
  },
  {
    method: 'put',
    path: '/photos/:id',
    area: 'care',
    access: 'technician',
    alone: true,
    summary: 'Send a photo; it is turned upright and made small here',
    answers: 'The photo.',
    query: photoUploadSchema,
    upload: {
      types: PHOTO_TYPES,
      limit: PHOTO_LIMIT,
      tooLarge: 'A photo may have at most 20 MB. Take it smaller, or save it as JPEG.',
    },
    handle: takePhoto,
  },
  {
    method: 'get',
    path: '/photos/:id/file',
    area: 'care',
    access: 'looker',
    summary: 'A photo itself',
    answers: 'A JPEG file.',
    query: photoFileSchema,
    handle: photoFile,
  },
];
