import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { CheckStart, FirstPerson, MachineFacts, Role, RoundWrite, SurfaceWrite } from '@even-bed/contract';
import { lookingDown } from '@even-bed/core';
import type { Knex } from 'knex';
import pino from 'pino';
import request from 'supertest';
import { v7 as uuid } from 'uuid';
import { networksOf, SHOP_NETWORKS } from '../kernel/networks';
import { connect, migrate } from '../db/connect';
import type { LinkTimes } from '../machines/consoleLink';
import type { SecretCost } from '../kernel/route';
import { buildApp } from './app';
import { heldAgainstDescription } from './describedAnswers.fixture';

export const NOW = Date.UTC(2026, 10, 25, 12);
export const LINK: LinkTimes = { connectMs: 300, silenceMs: 300, commandMs: 10_000 };

/** Hashing so cheap that tests don't wait for it. */
const CHEAP: SecretCost = { log2N: 4, r: 1, p: 1 };

export const newId = () => uuid();

/** A machine of the shop's tests; lengths in mm. */
export const facts = (areaId: string, more: Partial<MachineFacts> = {}): MachineFacts => ({
  name: 'Dunlin',
  areaId,
  shelf: 'A1',
  model: '225 bed-slinger',
  family: 'filament',
  plateWidth: 235,
  plateDepth: 235,
  printWidth: 225,
  printDepth: 225,
  originX: 5,
  originY: 5,
  adjusters: [
    { id: 'fl', name: 'front-left', x: 25, y: 25, thread: 'M4', pitch: 0.7, clockwise: 'lowers' },
    { id: 'fr', name: 'front-right', x: 200, y: 25, thread: 'M4', pitch: 0.7, clockwise: 'lowers' },
    { id: 'rl', name: 'rear-left', x: 25, y: 200, thread: 'M4', pitch: 0.7, clockwise: 'lowers' },
    { id: 'rr', name: 'rear-right', x: 200, y: 200, thread: 'M4', pitch: 0.7, clockwise: 'lowers' },
  ],
  seenFrom: 'above',
  compensation: true,
  firstLayer: 0.2,
  aim: null,
  finding: 'contact-probe',
  plus: 'higher',
  mapExtent: null,
  mapFirstRow: null,
  console: null,
  hottest: null,
  platformKey: null,
  tag: '',
  note: '',
  ...more,
});

/** A kind that every shop has. */
export const TEXTURED = '0b9d6a52-0f3e-4d0a-9a51-8c7f3f6d0001';

/** A new sheet of the shop's tests, as it is added. */
export const sheet = (more: Partial<SurfaceWrite> = {}): SurfaceWrite => ({
  tag: '',
  kindId: TEXTURED,
  width: 235,
  depth: 235,
  thickness: null,
  boughtAt: null,
  price: null,
  note: '',
  place: '',
  version: 0,
  at: NOW,
  ...more,
});

export const TILTED = 'x,y,z\n15,15,0.10\n210,15,0.30\n15,210,0.00\n210,210,0.20\n112,112,0.15';

export const round = (seq: number, more: Partial<RoundWrite> = {}): RoundWrite => ({
  seq,
  takenAt: NOW + seq * 60_000,
  source: 'pasted',
  raw: TILTED,
  reading: {},
  ...more,
});

/** A shop in memory with a lead, one area and one machine, and its app behind supertest; `api` is the lead's device. */
export async function openShop(more: Partial<MachineFacts> = {}) {
  const db: Knex = connect(':memory:');
  await migrate(db);
  const clock = { now: NOW };
  const photoFolder = fs.mkdtempSync(path.join(os.tmpdir(), 'even-bed-photos-'));
  const app = buildApp({
    db,
    log: pino({ level: 'silent' }),
    now: () => clock.now,
    linkTimes: LINK,
    // What stands in for a machine of the shop listens on this host.
    networks: networksOf([...SHOP_NETWORKS, '127.0.0.0/8']),
    secretCost: CHEAP,
    photoFolder,
  });
  heldAgainstDescription(app);
  const handler = app.callback();
  /** A browser of its own: it keeps its cookie. */
  const device = () => request.agent(handler);
  const api = device();
  const lead: FirstPerson = { id: newId(), name: 'Merle Quay', secret: 'a long evening', shared: false, at: NOW };
  await api.post('/api/people/first').send(lead).expect(200);
  /** Adds somebody and signs them in on a device of their own. */
  const signedIn = async (role: Role, name = `${role} one`) => {
    const secret = `${name} at work`;
    await api.put(`/api/people/${newId()}`).send({ name, role, active: true, secret, version: 0, at: NOW }).expect(200);
    const theirs = device();
    await theirs.post('/api/session').send({ name, secret }).expect(200);
    return theirs;
  };
  const areaId = newId();
  const machineId = newId();
  await api.put(`/api/areas/${areaId}`).send({ name: 'Long Room', position: 0, version: 0, at: NOW }).expect(200);
  await api
    .put(`/api/machines/${machineId}`)
    .send({ ...facts(areaId, more), version: 0, at: NOW })
    .expect(200);
  const start = (): CheckStart => ({
    machineId,
    startedAt: NOW,
    setup: {
      adjusters: lookingDown(
        facts(areaId).adjusters.map(({ id, x, y, pitch, clockwise }) => ({ id, x, y, pitch, clockwise })),
        'above',
      ),
      seenFrom: 'above',
      aim: 0.1,
      printWidth: 225,
      printDepth: 225,
    },
  });
  const close = async () => {
    fs.rmSync(photoFolder, { recursive: true, force: true });
    await db.destroy();
  };
  return { db, app, api, lead, device, signedIn, clock, areaId, machineId, photoFolder, start, close };
}

export type Shop = Awaited<ReturnType<typeof openShop>>;
