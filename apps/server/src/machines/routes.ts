import { scanOperations } from '@even-bed/contract/machines/operations';
import { PassThrough } from 'node:stream';
import type { Context } from 'koa';
import { findMachine } from '../fleet/store';
import { notFound } from '../kernel/problem';
import { routesOf, type CallOf } from '../kernel/route';
import type { ScanJobs } from './scanJobs';

declare module '../kernel/route' {
  interface Call {
    /** Readings of machines' consoles that are under way. */
    scans: ScanJobs;
  }
}

/** A comment line this often keeps proxies from closing a quiet stream. */
const HEARTBEAT_MS = 15_000;

/** Streams a scan's progress as server-sent events, until it has ended or the listener goes. */
function streamScan(ctx: Context, { params, scans }: CallOf<typeof scanOperations.followScan>): void {
  const id = params.id;
  if (!scans.find(id)) throw notFound('This scan');
  const stream = new PassThrough();
  const beat = setInterval(() => stream.write(':\n\n'), HEARTBEAT_MS);
  let unwatch: () => void = () => undefined;
  const close = () => {
    clearInterval(beat);
    unwatch();
    stream.end();
  };
  ctx.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' });
  ctx.status = 200;
  ctx.compress = false;
  ctx.body = stream;
  ctx.req.on('close', close);
  unwatch = scans.watch(id, (scan) => {
    stream.write(`data: ${JSON.stringify(scan)}\n\n`);
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
