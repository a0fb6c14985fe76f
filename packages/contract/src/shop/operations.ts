import { operations, type FileAnswer } from '../kit/operation';
import type { Reach } from './records';

export interface ShopAnswers {
  reach: Reach;
  lastBackup: { at: number | null; damage: string | null };
  exportShop: FileAnswer;
  importShop: { rows: Record<string, number> };
  listAsCsv: FileAnswer;
}

export const shopOperations = operations<typeof import('./records'), ShopAnswers>()('shop', {
  reach: {
    method: 'get',
    path: '/reach',
    access: 'looker',
    fresh: true,
    summary: 'How other devices reach the shop, and come to trust it',
    answers: 'Addresses, the best first, what makes the way secure, and where a device comes to trust it.',
    shows: ['Session'],
  },
  lastBackup: {
    method: 'get',
    path: '/backups/last',
    access: 'lead',
    fresh: true,
    summary: 'When the last backup was made, and whether the shop’s file is sound',
    answers:
      'at: epoch ms; null when there is none, or none is made here. damage: what is known of it and what helps; null: nothing.',
    shows: ['Session'],
  },
  exportShop: {
    method: 'get',
    path: '/export',
    access: 'lead',
    fresh: true,
    summary: 'Everything the shop has in one zip',
    answers: 'A zip file; its README says what is in it.',
    gives: 'application/zip',
  },
  importShop: {
    method: 'put',
    path: '/import/:id',
    access: 'anyone',
    summary: 'Read an export into an empty shop; only while there is no account',
    answers: 'rows: how many each table has.',
    query: 'importAskSchema',
    takes: {
      types: ['application/zip', 'application/octet-stream', 'application/x-zip-compressed'],
      limit: 4 * 1024 * 1024 * 1024,
      tooLarge: 'An export may have at most 4 GB.',
      toFile: true,
    },
    alone: true,
    touches: ['Session'],
    refuses: [403, 409, 422, 429],
  },
  listAsCsv: {
    method: 'get',
    path: '/csv/:list',
    access: 'looker',
    fresh: true,
    summary:
      'A list as CSV: machines, surfaces, kinds, prints, offsets, inspections, checks, jobs, mounts, people or book',
    answers: 'A CSV file.',
    gives: 'text/csv',
  },
});
