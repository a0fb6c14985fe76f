import { PassThrough } from 'node:stream';
import type { Context } from 'koa';
import Joi from 'joi';
import { findMachine } from '../fleet/store';
import { notFound } from '../kernel/problem';
import type { Call, Route } from '../kernel/route';
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
function streamScan(ctx: Context, { params, scans }: Call): void {
  const id = params['id']!;
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

export const scanRoutes: Route[] = [
  {
    method: 'put',
    path: '/machines/:machineId/scans/:id',
    area: 'machines',
    access: 'technician',
    summary: 'Read the heights of a machine over its console',
    answers: 'The scan, running.',
    body: Joi.object({}),
    handle: async ({ db, params, scans }) => {
      const machine = await findMachine(db, params['machineId']!);
      if (!machine) throw notFound('This machine');
      return { status: 202, body: scans.start(params['id']!, machine) };
    },
  },
  {
    method: 'get',
    path: '/scans/:id',
    area: 'machines',
    access: 'looker',
    summary: 'One scan as it stands',
    answers: 'The scan.',
    handle: ({ params, scans }) => {
      const scan = scans.find(params['id']!);
      if (!scan) throw notFound('This scan');
      return Promise.resolve({ body: scan });
    },
  },
  {
    method: 'get',
    path: '/scans/:id/events',
    area: 'machines',
    access: 'looker',
    summary: 'Progress of a scan as server-sent events',
    answers: 'A stream of the scan at each change.',
    handle: () => Promise.reject(new Error('streamed')),
    stream: streamScan,
  },
  {
    method: 'post',
    path: '/scans/:id/stop',
    area: 'machines',
    access: 'technician',
    summary: 'Stop a scan',
    answers: 'The scan.',
    body: Joi.object({}),
    handle: ({ params, scans }) => {
      const scan = scans.stop(params['id']!);
      if (!scan) throw notFound('This scan');
      return Promise.resolve({ body: scan });
    },
  },
];
