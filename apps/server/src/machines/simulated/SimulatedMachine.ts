import net from 'node:net';
import type { HeightGrid } from '@even-bed/core';
import { HiddenBed, type BedFrame, type BedNature } from './hiddenBed';
import { printMap, type MapLayout } from './printMap';

export interface SimulatedMachineParts {
  name: string;
  nature: BedNature;
  frame: BedFrame;
  layout: MapLayout;
  /** What + means in what it prints. */
  plus: 'higher' | 'lower';
  columns: number;
  rows: number;
  /** Takes the connection and never answers. */
  mute?: boolean;
  /** Time for one reading, ms. */
  paceMs: number;
}

/** Readings keep this far from the edge of the print area, mm. */
const EDGE = 15;
/** Longest line it reads before it hangs up. */
const LONGEST_COMMAND = 500;
/** Heating up takes this many readings' time; the bed ages by SOAK seconds. */
const HEAT_PACES = 6;
const SOAK = 300;
/** A probe that tells thousandths of a millimetre. */
const THOUSANDTHS = 1000;

/** A machine's console over TCP, with a hidden bed behind it. */
export class SimulatedMachine {
  readonly bed: HiddenBed;
  private server: net.Server | null = null;
  private readonly sockets = new Set<net.Socket>();

  constructor(private readonly parts: SimulatedMachineParts) {
    this.bed = new HiddenBed(parts.nature, parts.frame);
  }

  /** Listens on the loopback address; port 0 takes any free one. Returns the port. */
  listen(port: number): Promise<number> {
    const server = net.createServer((socket) => this.serve(socket));
    this.server = server;
    return new Promise((resolve, reject) => {
      server.once('error', reject);
      server.listen(port, '127.0.0.1', () => resolve((server.address() as net.AddressInfo).port));
    });
  }

  close(): Promise<void> {
    for (const socket of this.sockets) socket.destroy();
    return new Promise((resolve) => (this.server ? this.server.close(() => resolve()) : resolve()));
  }

  private serve(socket: net.Socket): void {
    this.sockets.add(socket);
    socket.setEncoding('utf8');
    socket.on('error', () => socket.destroy());
    socket.on('close', () => this.sockets.delete(socket));
    if (this.parts.mute) return;
    let pending = '';
    let queue = Promise.resolve();
    socket.on('data', (chunk: string) => {
      pending += chunk;
      if (pending.length > LONGEST_COMMAND) return socket.destroy();
      const commands = pending.split('\n');
      pending = commands.pop()!;
      for (const command of commands) queue = queue.then(() => this.answer(command.trim(), socket));
    });
  }

  private async answer(command: string, socket: net.Socket): Promise<void> {
    const say = (line: string) => {
      if (!socket.destroyed) socket.write(`${line}\n`);
    };
    const [word = '', ...rest] = command.split(/\s+/);
    switch (word.toUpperCase()) {
      case 'G28':
        await this.pause(3);
        return say('ok');
      case 'M190':
        return this.heat(Number(rest[0]?.slice(1) ?? 0), say, socket);
      case 'G29':
        return this.scan(say, socket);
      case 'HAND': {
        const [adjusterId = '', turns = '', token = ''] = rest;
        const taken = Number.isFinite(Number(turns)) && this.bed.turn(adjusterId, Number(turns), token);
        return say(taken ? 'ok' : `error: no adjuster ${adjusterId}`);
      }
      case '':
        return;
      default:
        return say(`error: unknown command ${word.slice(0, 20)}`);
    }
  }

  private async heat(setpoint: number, say: (line: string) => void, socket: net.Socket): Promise<void> {
    for (let step = 1; step <= HEAT_PACES && !socket.destroyed; step++) {
      await this.pause(1);
      say(`T:24.8 B:${(21 + ((setpoint - 21) * step) / HEAT_PACES).toFixed(1)} target ${setpoint}`);
    }
    this.bed.heat(SOAK);
    say('ok');
  }

  private async scan(say: (line: string) => void, socket: net.Socket): Promise<void> {
    const { columns, rows, frame, layout, plus } = this.parts;
    const line = (count: number, length: number) =>
      Array.from({ length: count }, (_, i) => Math.round((EDGE + ((length - 2 * EDGE) * i) / (count - 1)) * 100) / 100);
    const grid: HeightGrid = { xs: line(columns, frame.width), ys: line(rows, frame.depth), heights: [] };
    let taken = 0;
    for (const y of grid.ys) {
      const row: number[] = [];
      for (const x of grid.xs) {
        if (socket.destroyed) return;
        await this.pause(1);
        row.push(Math.round((plus === 'higher' ? 1 : -1) * this.bed.read(x, y) * THOUSANDTHS) / THOUSANDTHS);
        say(`reading ${++taken} of ${columns * rows}`);
      }
      grid.heights.push(row);
    }
    for (const printed of printMap(grid, layout)) say(printed);
    say('ok');
  }

  private pause(paces: number): Promise<void> {
    return new Promise((resolve) => setTimeout(resolve, paces * this.parts.paceMs));
  }
}
