import { DEFAULT_SETTINGS, type MachineFacts } from '@even-bed/contract';
import { hearAll } from '../spine/hearAll';
import type { Knex } from 'knex';
import { saveArea, saveMachine } from '../fleet/store';
import { endCheck, saveRound, saveTurns, startCheck } from '../level/store';
import type { SecretCost } from '../kernel/route';
import { hashSecret } from '../people/secrets';
import { saveSettings } from '../manner/store';
import { keepDemoAccounts, savePerson, secretKind } from '../people/store';
import { saveRule } from '../rounds/store';
import { acting } from '../kernel/acting';
import { seededIds, type SeededIds } from './seededIds';
import { AREAS, consolePort, DAY_MS, MACHINES, MODELS, PEOPLE, type DemoMachine } from './saltmarsh';
import { yearOfChecks } from './yearOfChecks';
import { yearOfJobs } from './yearOfJobs';
import { yearOfLevels } from './yearOfLevels';
import { yearOfShapes } from './yearOfShapes';
import { yearOfSurfaces } from './yearOfSurfaces';

const DEFAULT_EVERY_DAYS = 14;
/** The hall's records begin this long before the demo's now. */
const HISTORY_DAYS = 365;

/** One thing that happened, to be written in the order of time. */
export interface DemoEvent {
  at: number;
  write: (db: Knex) => Promise<void>;
}

export interface DemoOptions {
  now: number;
  seed: string;
  consoleBasePort: number;
  /** Where its photos go; left out: it has none. */
  photoFolder?: string;
  /** Cheaper in tests. */
  secretCost?: SecretCost;
}

/**
 * Fills an empty shop with the Saltmarsh Print Hall and its year of level checks and surfaces.
 * The same seed, now and base port give the same shop, row by row, but for the salts of its people's secrets.
 */
export async function loadDemo(
  db: Knex,
  { now, seed, consoleBasePort, photoFolder, secretCost }: DemoOptions,
): Promise<void> {
  hearAll();
  const ids = seededIds(seed);
  const begin = now - HISTORY_DAYS * DAY_MS;
  const areaIds = new Map(AREAS.map((name, i) => [name as string, ids.next(begin + i)]));
  const machineIds = new Map(MACHINES.map(({ name }, i) => [name, ids.next(begin + 100 + i)]));
  const events: DemoEvent[] = AREAS.map((name, position) => ({
    at: begin + position * 60_000,
    write: async (trx) =>
      void (await saveArea(trx, areaIds.get(name)!, { name, position, version: 0, at: begin + position * 60_000 })),
  }));
  MACHINES.forEach((machine, i) => {
    const at = begin + (10 + i * 4) * 60_000;
    const id = machineIds.get(machine.name)!;
    const facts = factsOf(machine, areaIds.get(machine.area)!, consoleBasePort);
    events.push({ at, write: async (trx) => void (await saveMachine(trx, id, { ...facts, version: 0, at })) });
    if (facts.family === 'filament') events.push(...upkeep({ machine, id, at, now, seed, ids }));
  });
  events.push(...yearOfSurfaces({ machineIds, ids, seed, begin, now, photoFolder: photoFolder ?? null }));
  events.push(...yearOfJobs({ machineIds, ids, now }));
  events.push(...yearOfLevels({ machineIds, ids, seed, begin, now }));
  events.push(...yearOfShapes({ machineIds, ids, seed, begin, now }));
  events.sort((p, q) => p.at - q.at);
  const people = PEOPLE.map((person, i) => ({ ...person, id: ids.next(begin - 1000 + i) }));
  await openHall(db, people, { begin: begin - 60_000, secretCost });
  await db.transaction(async (trx) => {
    for (const { at, write } of events) {
      // Two of the three do the work; whose hands it was goes by the day.
      trx.userParams = { personId: people[Math.floor(at / DAY_MS) % 3 === 0 ? 0 : 1]!.id, writtenAt: at };
      await write(trx);
    }
    // The turns of the past were made on beds of the past: the simulated machines start from today's.
    await trx('level_rounds').update({ hand_told: true });
  });
}

/** The hall's first people and how it reads. */
async function openHall(
  db: Knex,
  people: readonly ((typeof PEOPLE)[number] & { id: string })[],
  { begin, secretCost }: { begin: number; secretCost: SecretCost | undefined },
): Promise<void> {
  const first = acting(db, people[0]!.id, begin);
  for (const [i, { id, name, role, secret }] of people.entries()) {
    const hash = { secret: await hashSecret(secret, secretCost), kind: secretKind(secret) };
    const write = { name, role, active: true, version: 0, at: begin + i };
    await first.transaction((trx) => savePerson(trx, id, write, hash));
  }
  await keepDemoAccounts(db, PEOPLE, begin);
  const settings = { ...DEFAULT_SETTINGS, name: 'Saltmarsh Print Hall' };
  await first.transaction((trx) => saveSettings(trx, { ...settings, version: 0, at: begin + 10 }));
}

function upkeep(shop: {
  machine: DemoMachine;
  id: string;
  at: number;
  now: number;
  seed: string;
  ids: SeededIds;
}): DemoEvent[] {
  const { machine, id, at, now, seed, ids } = shop;
  const ruleId = ids.next(at);
  const rule = (from: number, everyDays: number, version: number): DemoEvent => ({
    at: from,
    write: async (trx) =>
      void (await saveRule(trx, ruleId, { machineId: id, kind: 'level', everyDays, version, at: from })),
  });
  const checks = yearOfChecks({ machine, model: MODELS[machine.model], begin: at, now, seed, ids });
  const events = [rule(at + 60_000, DEFAULT_EVERY_DAYS, 0)];
  if (machine.everyDays !== undefined) events.push(rule(at + 120 * DAY_MS, machine.everyDays, 1));
  for (const { checkId, start, rounds, end } of checks) {
    events.push({ at: start.startedAt, write: (trx) => startCheck(trx, checkId, { ...start, machineId: id }) });
    for (const { roundId, round, turns } of rounds) {
      events.push({ at: round.takenAt, write: (trx) => saveRound(trx, checkId, roundId, round) });
      if (turns) events.push({ at: turns.madeAt, write: (trx) => saveTurns(trx, checkId, roundId, turns) });
    }
    events.push({ at: end.endedAt, write: (trx) => endCheck(trx, checkId, end) });
  }
  return events;
}

function factsOf(machine: DemoMachine, areaId: string, basePort: number): MachineFacts {
  const model = MODELS[machine.model];
  const [plateWidth, plateDepth] = model.plate;
  const [printWidth, printDepth] = model.print;
  return {
    name: machine.name,
    areaId,
    shelf: machine.shelf,
    model: model.label,
    family: model.family,
    plateWidth,
    plateDepth,
    printWidth,
    printDepth,
    originX: (plateWidth - printWidth) / 2,
    originY: (plateDepth - printDepth) / 2,
    adjusters: model.adjusters,
    seenFrom: machine.seenFrom ?? 'above',
    compensation: model.compensation,
    firstLayer: model.firstLayer,
    aim: null,
    finding: model.finding,
    plus: 'higher',
    mapExtent: null,
    mapFirstRow: null,
    console: machine.layout
      ? {
          host: '127.0.0.1',
          port: consolePort(machine.name, basePort),
          simulated: true,
          scanCommand: 'G29',
          bedTemperature: 60,
        }
      : null,
    hottest: model.hottest,
    platformKey: model.family === 'resin' ? 4 : null,
    tag: '',
    note: machine.note ?? '',
  };
}
