import { careOperations } from '@even-bed/contract/care/operations';
import * as schemas from '@even-bed/contract/care/records';
import type { Photo } from '@even-bed/contract';
import fs from 'node:fs/promises';
import { atField, notFound } from '../kernel/problem';
import { routesOf, type Answer, type CallOf } from '../kernel/route';
import { dropPhoto, keepPhoto, photoPath } from './photoFile';
import { findPhoto, listInspections, listPhotos, saveInspection, savePhoto } from './store';

async function takePhoto({
  db,
  params: { id },
  query: write,
  upload,
  photoFolder,
  who,
  signal,
}: CallOf<typeof careOperations.sendPhoto>): Promise<Answer<Photo>> {
  if (!write.surfaceId && !write.machineId && !write.printId)
    throw atField('surfaceId', 'Say what the photo shows: a surface, a machine or a print.');
  const before = await findPhoto(db, id);
  if (before) return { body: before };
  const file = await keepPhoto(photoFolder, id, upload!, { who, signal });
  try {
    return { body: await db.transaction((trx) => savePhoto(trx, id, write, file)) };
  } catch (error) {
    // Refused, it leaves nothing behind; unless the same photo was written down meanwhile.
    if (!(await findPhoto(db, id))) await dropPhoto(photoFolder, id);
    throw error;
  }
}

async function photoFile({ db, params, query, photoFolder }: CallOf<typeof careOperations.photoFile>): Promise<Answer> {
  const photo = await findPhoto(db, params.id);
  if (!photo) throw notFound('This photo');
  const body = await fs.readFile(photoPath(photoFolder, photo.id, query.size)).catch(() => {
    throw notFound('The file of this photo');
  });
  return { body, file: { type: 'image/jpeg', forever: true } };
}

export const careRoutes = routesOf(careOperations, schemas, {
  inspections: async ({ db, query }) => ({ body: await listInspections(db, query) }),
  inspect: async ({ db, params, body }) => {
    await saveInspection(db, params.id, body);
    return { body: { kept: true } };
  },
  photos: async ({ db, query }) => ({ body: await listPhotos(db, query) }),
  sendPhoto: takePhoto,
  photoFile,
});
