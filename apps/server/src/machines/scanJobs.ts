import type { Machine, Scan } from '@even-bed/contract';
import type { BlockList } from 'node:net';
import type { Logger } from 'pino';
import { Problem } from '../kernel/problem';
import { ConsoleLink, LINK_TIMES, type LinkTimes } from './consoleLink';

/** What has to be said to a machine before it is scanned. */
export type BeforeScan = (machine: Machine, link: ConsoleLink) => Promise<void>;

interface Job {
  scan: Scan;
  controller: AbortController;
  listeners: Set<(scan: Scan) => void>;
}

const PROGRESS = /(\d{1,5})\s*(?:\/|of)\s*(\d{1,5})/;
/** Ended scans are kept this long for a phone that comes back. */
const KEEP_MS = 30 * 60_000;

/** Height scans that run on machines' consoles. In memory: a scan that the server loses is made again. */
export class ScanJobs {
  private readonly jobs = new Map<string, Job>();
  private readonly times: LinkTimes;
  private readonly log: Logger;
  private readonly beforeScan: BeforeScan;

  private readonly networks: BlockList;

  constructor({
    log,
    beforeScan,
    networks,
    times = LINK_TIMES,
  }: {
    log: Logger;
    beforeScan: BeforeScan;
    networks: BlockList;
    times?: LinkTimes;
  }) {
    this.log = log;
    this.networks = networks;
    this.times = times;
    this.beforeScan = beforeScan;
  }

  /** Starts a scan; the same id again gives the scan that is there. One scan at a time on a machine. */
  start(id: string, machine: Machine): Scan {
    const known = this.jobs.get(id);
    if (known) return known.scan;
    if (!machine.console)
      throw new Problem(422, 'no-console', `${machine.name} has no console address. Add it on its page.`);
    for (const { scan } of this.jobs.values()) {
      if (scan.machineId === machine.id && scan.state === 'running') {
        throw new Problem(
          409,
          'scan-running',
          `${machine.name} is being scanned already. Stop that scan or wait for it.`,
        );
      }
    }
    const scan: Scan = {
      id,
      machineId: machine.id,
      state: 'running',
      step: `Calling ${machine.name}`,
      taken: 0,
      expected: null,
      text: '',
      message: null,
    };
    const job: Job = { scan, controller: new AbortController(), listeners: new Set() };
    this.jobs.set(id, job);
    void this.run(job, machine);
    return scan;
  }

  find(id: string): Scan | null {
    return this.jobs.get(id)?.scan ?? null;
  }

  /** Stops a running scan; an ended one stays as it is. */
  stop(id: string): Scan | null {
    const job = this.jobs.get(id);
    job?.controller.abort();
    return job?.scan ?? null;
  }

  /** Calls back with each change until the scan has ended; returns how to stop listening. */
  watch(id: string, listener: (scan: Scan) => void): () => void {
    const job = this.jobs.get(id);
    if (!job) return () => undefined;
    job.listeners.add(listener);
    listener(job.scan);
    return () => job.listeners.delete(listener);
  }

  private async run(job: Job, machine: Machine): Promise<void> {
    const { signal } = job.controller;
    const { host, port, simulated, scanCommand, bedTemperature } = machine.console!;
    const lines: string[] = [];
    let link: ConsoleLink | null = null;
    try {
      link = await ConsoleLink.open(
        { name: machine.name, host, port, simulated },
        { networks: this.networks, times: this.times },
      );
      await this.beforeScan(machine, link);
      if (bedTemperature > 0) {
        this.tell(job, { step: `Heating the bed to ${bedTemperature} °C` });
        await link.send(`M190 S${bedTemperature}`, { signal });
      }
      this.tell(job, { step: 'Homing' });
      await link.send('G28', { signal });
      this.tell(job, { step: 'Reading heights' });
      for (const command of scanCommand.split('\n')) {
        const onLine = (line: string) => {
          lines.push(line);
          const [, taken, expected] = PROGRESS.exec(line) ?? [];
          if (expected !== undefined) this.tell(job, { taken: Number(taken), expected: Number(expected) });
        };
        await link.send(command.trim(), { signal, onLine });
      }
      this.tell(job, {
        state: 'done',
        step: 'Done',
        text: lines.filter((line) => !PROGRESS.test(line) || /[xyz]\s*[:=]/i.test(line)).join('\n'),
      });
    } catch (error) {
      const problem = error instanceof Problem ? error : null;
      if (!problem) this.log.error({ err: error, machineId: machine.id }, 'scan failed');
      const state = problem?.code === 'stopped' ? 'stopped' : 'failed';
      this.tell(job, {
        state,
        step: 'Ended',
        message: problem?.message ?? `The scan of ${machine.name} failed; scan again.`,
      });
    } finally {
      link?.close();
      setTimeout(() => this.jobs.delete(job.scan.id), KEEP_MS).unref();
    }
  }

  private tell(job: Job, change: Partial<Scan>): void {
    job.scan = { ...job.scan, ...change };
    for (const listener of job.listeners) listener(job.scan);
  }
}
