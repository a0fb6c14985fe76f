import fs from 'node:fs';
import path from 'node:path';
import type { Role } from '@even-bed/contract';
import type { Response } from 'supertest';
import { routes } from './routes';
import { newId, NOW, openShop, type Shop } from './shop.fixture';

const CALLERS = ['signed out', 'looker', 'technician', 'lead', "machine's token", "program's token"] as const;
type Caller = (typeof CALLERS)[number];

interface Line {
  method: 'get' | 'put' | 'post';
  path: string;
  may: Record<Caller, boolean>;
}

/** The table of docs/roles.md. */
function readTable(): Line[] {
  const text = fs.readFileSync(path.join(__dirname, '../../../../docs/roles.md'), 'utf8');
  const rows = text
    .split('\n')
    .filter((line) => line.startsWith('|'))
    .map((line) =>
      line
        .split('|')
        .slice(1, -1)
        .map((cell) => cell.trim()),
    );
  const [head, , ...lines] = rows;
  return lines.map((cells) => {
    const cell = (name: string) => cells[head!.indexOf(name)]!;
    const may = (caller: Caller) => {
      expect(['yes', '–']).toContain(cell(caller));
      return cell(caller) === 'yes';
    };
    return {
      method: cell('method').toLowerCase() as Line['method'],
      path: cell('path'),
      may: Object.fromEntries(CALLERS.map((caller) => [caller, may(caller)])) as Line['may'],
    };
  });
}

const table = readTable();
let shop: Shop;
let asked = 0;
beforeAll(async () => {
  shop = await openShop();
});
afterAll(() => shop.close());

test('the table names every route once', () => {
  const named = table.map((line) => `${line.method} ${line.path}`).sort();
  expect(named).toEqual(routes.map((route) => `${route.method} ${route.path}`).sort());
});

async function ask(line: Line, caller: Caller): Promise<Response> {
  const address = `/api${line.path.replace(/:(\w+)/g, (_, name: string) => (name === 'list' ? 'machines' : name === 'tag' ? 'S-001' : newId()))}`;
  // A device for each question: some of them end their own session.
  const name = `${caller} ${++asked}`;
  const device =
    caller === 'signed out' || caller.endsWith('token') ? shop.device() : await shop.signedIn(caller as Role, name);
  const request = device[line.method](address);
  if (caller === "machine's token") void request.set('Authorization', `Bearer ${await machineToken()}`);
  if (caller === "program's token") void request.set('Authorization', `Bearer ${await programToken()}`);
  // A stream goes on: its first part is the answer.
  if (line.path === '/events')
    void request.buffer(true).parse((response, done) => {
      const stream = response as unknown as NodeJS.ReadableStream & { destroy: () => void };
      if (response.headers['content-type'] === 'text/event-stream') {
        stream.destroy();
        return done(null, {});
      }
      let text = '';
      stream.on('data', (part) => (text += String(part)));
      stream.on('end', () => done(null, JSON.parse(text)));
    });
  return line.method === 'get' ? request : request.send({});
}

async function machineToken(): Promise<string> {
  const { body } = await shop.api
    .put(`/api/machines/${shop.machineId}/tokens/${newId()}`)
    .send({ name: 'console', at: NOW })
    .expect(201);
  return body.token as string;
}

async function programToken(): Promise<string> {
  const { body } = await shop.api.put(`/api/program-tokens/${newId()}`).send({ name: 'display', at: NOW }).expect(201);
  return body.token as string;
}

/** Refused for who asks, not for what is asked. */
const outside = ({ status, body }: Response) =>
  (status === 401 && ['signed-out', 'locked'].includes(body.error.code)) ||
  (status === 403 && body.error.code === 'not-allowed');

describe.each(table.map((line) => [`${line.method} ${line.path}`, line] as const))('%s', (_, line) => {
  test.each(CALLERS)('%s', async (caller) => {
    const answer = await ask(line, caller);
    expect(answer.status).toBeLessThan(500);
    expect(outside(answer)).toBe(!line.may[caller]);
    if (!line.may[caller]) expect(answer.status).toBe(caller === 'signed out' ? 401 : 403);
  });
});

test('a locked device may do what a signed-out one may', async () => {
  let device: Awaited<ReturnType<typeof shop.signedIn>> | null = null;
  for (const line of table) {
    // Locked it stays, but for what a session does with itself; signing in anew each time would be too fast.
    if (device === null || line.path.startsWith('/session')) {
      device = await shop.signedIn('lead', `locked ${++asked}`);
      await device.post('/api/session/lock').send({}).expect(200);
    }
    const answer = await device[line.method](`/api${line.path.replace(/:\w+/g, newId)}`).send({});
    expect([line.path, outside(answer)]).toEqual([line.path, !line.may['signed out']]);
    if (line.path.startsWith('/session')) device = null;
  }
});
