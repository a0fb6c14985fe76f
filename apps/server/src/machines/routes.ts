import { scanOperations } from '@even-bed/contract/machines/operations';
import type { Context } from 'koa';
import { findMachine } from '../fleet/store';
import { eventStream } from '../kernel/eventStream';
import { notFound } from '../kernel/problem';
import { routesOf, type CallOf } from '../kernel/route';
import type { ScanJobs } from './scanJobs';

declare module '../kernel/route' {
  interface Call {
    /** Readings of machines' consoles that are under way. */
    scans: ScanJobs;
  }
}

/** Streams a scan's progress as server-sent events, until it has ended or the listener goes. */
function streamScan(ctx: Context, { params, who, scans }: CallOf<typeof scanOperations.followScan>): void {
  if (!scans.find(params.id)) throw notFound('This scan');
  let unwatch: () => void = () => undefined;
  const { send, close } = eventStream(ctx, { who, onClose: () => unwatch() });
  unwatch = scans.watch(params.id, (scan) => {
    send(scan);
    if (scan.state !== 'running') setImmediate(close);
  });
}

export const scanRoutes = routesOf(
  scanOperations,
  {},
  {
    startScan: async ({ db, params, scans }) => {
      const machine = await findMachine(db, params.machineId);
      if (!machine) throw notFound('This machine');
      return { body: scans.start(params.id, machine) };
    },
    scan: ({ params, scans }) => {
      const scan = scans.find(params.id);
      if (!scan) throw notFound('This scan');
      return Promise.resolve({ body: scan });
    },
    followScan: { stream: streamScan },
    stopScan: ({ params, scans }) => {
      const scan = scans.stop(params.id);
      if (!scan) throw notFound('This scan');
      return Promise.resolve({ body: scan });
    },
  },
);
