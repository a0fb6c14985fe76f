import net from 'node:net';
import { LIMITS } from '../kernel/limits';
import { addressWithin } from '../kernel/networks';
import { Problem } from '../kernel/problem';

export interface ConsoleTarget {
  /** For messages. */
  name: string;
  host: string;
  port: number;
  simulated: boolean;
}

export interface LinkTimes {
  connectMs: number;
  /** Longest silence within an answer; consoles that are busy say so now and then. */
  silenceMs: number;
  /** Longest a command may take in all. */
  commandMs: number;
}

export const LINK_TIMES: LinkTimes = { connectMs: 3_000, silenceMs: 8_000, commandMs: 20 * 60_000 };

/** Longest line and most lines that an answer may have: more is not a console. */
const LONGEST_LINE = 20_000;
const MOST_LINES = 20_000;

export const silent = (name: string) =>
  new Problem(504, 'machine-silent', `${name} doesn't answer; check its power and cable.`);
export const stopped = () =>
  new Problem(499, 'stopped', 'Stopped. The machine may still end its own move; keep clear of it.');

/**
 * A machine's console: a command per line, answers as text, "ok" at the end. One command at a time.
 * Every wait ends: by the answer, a time limit, the peer closing, or `signal`.
 */
export class ConsoleLink {
  private pending = '';

  private constructor(
    private readonly socket: net.Socket,
    private readonly target: ConsoleTarget,
    private readonly times: LinkTimes,
  ) {}

  /**
   * @param networks within which consoles are called
   * @throws Problem not-in-reach, outside of them; machine-silent, when nothing takes the connection in time
   */
  static async open(
    target: ConsoleTarget,
    { networks, times = LINK_TIMES }: { networks: net.BlockList; times?: LinkTimes },
  ): Promise<ConsoleLink> {
    const host = await addressWithin(target.host, { networks, simulated: target.simulated });
    if (host === null)
      throw new Problem(
        422,
        'not-in-reach',
        `${target.name}: ${target.host} is not in the shop’s networks. Whoever runs the server can add it: EVEN_BED_CONSOLE_NETWORKS.`,
      );
    return new Promise((resolve, reject) => {
      const socket = net.connect({ host, port: target.port });
      socket.setEncoding('utf8');
      socket.setTimeout(times.connectMs);
      const fail = () => {
        socket.destroy();
        reject(silent(target.name));
      };
      socket.once('error', fail);
      socket.once('timeout', fail);
      socket.once('connect', () => {
        socket.setTimeout(0);
        socket.removeAllListeners();
        socket.on('error', () => socket.destroy());
        resolve(new ConsoleLink(socket, target, times));
      });
    });
  }

  /**
   * Sends one command and collects its answer without the closing "ok".
   * @param onLine told of each line as it comes
   * @throws Problem machine-silent, machine-error (the console answered with an error), or stopped
   */
  send(
    command: string,
    { onLine, signal }: { onLine?: (line: string) => void; signal?: AbortSignal } = {},
  ): Promise<string[]> {
    const { socket, target, times } = this;
    return new Promise((resolve, reject) => {
      const lines: string[] = [];
      let received = 0;
      const end = (problem: Problem | null) => {
        clearTimeout(silence);
        clearTimeout(whole);
        socket.off('data', onData);
        socket.off('close', onClose);
        signal?.removeEventListener('abort', onAbort);
        // What comes after an answer that is no console's is nobody's: the link ends with it.
        if (problem && problem.code === 'machine-garbled') socket.destroy();
        if (problem) reject(problem);
        else resolve(lines);
      };
      const giveUp = () => end(silent(target.name));
      let silence = setTimeout(giveUp, times.silenceMs);
      const whole = setTimeout(giveUp, times.commandMs);
      const onClose = () => end(silent(target.name));
      const onAbort = () => end(stopped());
      const onData = (chunk: string) => {
        clearTimeout(silence);
        silence = setTimeout(giveUp, times.silenceMs);
        received += chunk.length;
        if (received > LIMITS.consoleAnswer) return end(garbled(target.name));
        this.pending += chunk;
        let newline: number;
        while ((newline = this.pending.indexOf('\n')) >= 0) {
          const line = this.pending.slice(0, newline).replace(/\r$/, '');
          this.pending = this.pending.slice(newline + 1);
          if (/^ok\b/i.test(line)) return end(null);
          if (/^error\b/i.test(line)) return end(refused(target.name, line));
          lines.push(line);
          if (lines.length > MOST_LINES) return end(garbled(target.name));
          onLine?.(line);
        }
        // Whole lines are gone by now, however many came at once: what is left is one line without its end.
        if (this.pending.length > LONGEST_LINE) return end(garbled(target.name));
      };
      if (signal?.aborted) return end(stopped());
      if (socket.destroyed) return end(silent(target.name));
      signal?.addEventListener('abort', onAbort);
      socket.on('data', onData);
      socket.on('close', onClose);
      socket.write(`${command}\n`);
    });
  }

  close(): void {
    this.socket.destroy();
  }
}

const garbled = (name: string) =>
  new Problem(502, 'machine-garbled', `${name} answers, but not like a console. Check its address and port.`);
const refused = (name: string, line: string) =>
  new Problem(502, 'machine-error', `${name} says: “${line.slice(0, 160)}”. Look at the machine, then scan again.`);
