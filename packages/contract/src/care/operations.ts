import type { Page } from '../kit/fields';
import type { Inspection, Photo } from './records';
import { PHOTO_TYPES, PHOTO_LIMIT } from './photoLimits';
import { operations, type FileAnswer } from '../kit/operation';

export interface CareAnswers {
  inspections: Page<Inspection>;
  inspect: { kept: boolean };
  photos: Page<Photo>;
  sendPhoto: Photo;
  photoFile: FileAnswer;
}

export const careOperations = operations<typeof import('./records'), CareAnswers>()('care', {
  inspections: {
    method: 'get',
    path: '/inspections',
    access: 'looker',
    summary: 'What was seen of a surface or a machine, the latest first',
    answers: 'items: the inspections.',
    query: 'subjectQuerySchema',
    list: { usual: 50, most: 200 },
    shows: ['Inspection'],
  },
  inspect: {
    method: 'put',
    path: '/inspections/:id',
    access: 'technician',
    summary: 'Write down what was seen',
    answers: 'kept.',
    body: 'inspectionWriteSchema',
    touches: ['Inspection', 'Surface', 'Book'],
    waits: { of: 'id' },
  },
  photos: {
    method: 'get',
    path: '/photos',
    access: 'looker',
    summary: 'Photos of a surface or a machine, the latest first',
    answers: 'items: the photos.',
    query: 'photoListSchema',
    list: { usual: 50, most: 200 },
    shows: ['Photo'],
  },
  sendPhoto: {
    method: 'put',
    path: '/photos/:id',
    access: 'technician',
    summary: 'Send a photo; it is turned upright and made small here',
    answers: 'The photo.',
    query: 'photoUploadSchema',
    takes: {
      types: PHOTO_TYPES,
      limit: PHOTO_LIMIT,
      tooLarge: 'A photo may have at most 20 MB. Take it smaller, or save it as JPEG.',
    },
    alone: true,
    touches: ['Photo', 'Inspection', 'Book'],
    status: 201,
  },
  photoFile: {
    method: 'get',
    path: '/photos/:id/file',
    access: 'looker',
    summary: 'A photo itself',
    answers: 'A JPEG file.',
    query: 'photoFileSchema',
    gives: 'image/jpeg',
  },
});
