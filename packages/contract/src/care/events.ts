import type { MountAsk } from '@even-bed/core';
import { eventsOf, type EventFacts } from '../kit/event';

export interface CareEvents {
  inspected: { inspectionId: string; card: string; code: string; numbers: Record<string, number>; note: string };
  'photo-added': { photoId: string; sha256: string; note: string };
  'job-started': { jobId: string; procedureId: string; version: number; title: string; schools: string[] };
  /** What a step wrote down: a line of its document, what was used, or why the records don't allow what it does. */
  'job-step': {
    jobId: string;
    said:
      | { code: 'line'; text: string }
      | { code: 'used'; used: string[] }
      /** It was put on, and nobody was asked what is usually asked: the size, the heat. */
      | { code: 'not-asked'; tag: string; asks: MountAsk[] }
      | { code: 'not-possible'; title: string; why: string };
  };
  'job-handed-over': { jobId: string; title: string; toId: string; toName: string; note: string };
  'job-ended': { jobId: string; title: string; ended: 'done' | 'stopped'; note: string };
  'procedure-saved': { procedureId: string; version: number; title: string };
}

const job: EventFacts = { touches: ['Job', 'Machine'] };

export const careEvents = eventsOf<CareEvents>()({
  inspected: { touches: ['Inspection', 'Surface'] },
  'photo-added': { touches: ['Photo', 'Inspection'] },
  'job-started': job,
  'job-step': job,
  'job-handed-over': job,
  'job-ended': job,
  'procedure-saved': { touches: ['Procedure'] },
});
