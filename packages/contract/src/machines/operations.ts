import type { Scan } from '../level/records';
import { operations, type FileAnswer } from '../kit/operation';

export interface ScanAnswers {
  startScan: Scan;
  scan: Scan;
  followScan: FileAnswer;
  stopScan: Scan;
}

export const scanOperations = operations<object, ScanAnswers>()('machines', {
  startScan: {
    method: 'put',
    path: '/machines/:machineId/scans/:id',
    access: 'technician',
    summary: 'Read the heights of a machine over its console',
    answers: 'The scan, running.',
    status: 202,
    refuses: [422, 429],
    touches: ['Scan'],
  },
  scan: {
    method: 'get',
    path: '/scans/:id',
    access: 'looker',
    fresh: true,
    summary: 'One scan as it stands',
    answers: 'The scan.',
    shows: ['Scan'],
  },
  followScan: {
    method: 'get',
    path: '/scans/:id/events',
    access: 'looker',
    fresh: true,
    summary: 'Progress of a scan as server-sent events',
    answers: 'A stream of the scan at each change.',
    gives: 'text/event-stream',
  },
  stopScan: {
    method: 'post',
    path: '/scans/:id/stop',
    access: 'technician',
    summary: 'Stop a scan',
    answers: 'The scan.',
    touches: ['Scan'],
  },
});
