import type { CareEvents, Machine, PlainLayer } from '@even-bed/contract';
import {
  ImpossibleEvent,
  isHeld,
  slotOf,
  type ResolvedEffect,
  type ShapeRaw,
  type Side,
  type Slot,
  type SurfaceEvent,
  type SurveyLineId,
} from '@even-bed/core';
import { linesByReadings } from '@even-bed/core/care/lightCodes';
import type { Knex } from 'knex';
import { v5 as uuidOfName } from 'uuid';
import { writeEntry } from '../kernel/book';
import { actorOf, within } from '../kernel/acting';
import { noteFromJob } from '@even-bed/core/level/levelNote';
import { keepPlatformKey } from '../fleet/store';
import { keepLevelNote, keepZMark } from '../level/noteStore';
import { keepShape } from '../level/shapeStore';
import { findPerson } from '../people/store';
import { Problem } from '../kernel/problem';
import { askToMount, mount } from '../surfaces/mount';
import { keepOffset } from '../surfaces/offsetStore';
import { layPlain, liftPlain, plainLayers, readStack } from '../surfaces/stackStore';
import { findSurface, keepThickness, recordEvent, type Recorded } from '../surfaces/store';
import { saveInspection } from './store';

export interface EffectPlace {
  db: Knex;
  now: number;
  machine: Machine;
  /** Title of the job, for the book. */
  title: string;
  jobId: string;
  eventId: string;
  /** Surface by part. */
  parts: Record<string, string>;
  /** Side that goes up, by part. */
  sides: Record<string, Side>;
  /** What the steps so far measured for each slot, mm. */
  measured: Partial<Record<Slot, number>>;
  /** Plain layers laid under what is put on. */
  plain: readonly PlainLayer[];
}

/** What a step changed in the records, with all that its taking back needs. */
export type StepRecord =
  | { kind: 'event'; recorded: Recorded }
  /** Thickness in mm that calipers said, and what stood there before. */
  | { kind: 'thickness'; surfaceId: string; was: number | null; now: number }
  | { kind: 'layers'; machineId: string; laid: PlainLayer[] }
  | { kind: 'lifted'; machineId: string; lifted: PlainLayer[] }
  | { kind: 'level-note' | 'z-mark' | 'shape' | 'offset'; id: string }
  /** mm; what stood on the machine's page before, and what stands there now. */
  | { kind: 'key'; machineId: string; was: number | null; now: number };

const HOUR = 3_600_000;
/** Namespace of the ids of what steps write down (a fixed, random UUID). */
const NAMESPACE = 'b7c1a4de-52a1-4c70-9d0a-6f1a0a8a2f11';

/**
 * Brings the records to where the hands have brought the things. What the records do not allow is written into the book
 * with its reason: the step is done all the same, and a job must not stop because a sheet was never entered.
 * @returns what was changed, in its order
 */
export async function performEffects(
  place: EffectPlace,
  at: number,
  effects: readonly ResolvedEffect[],
): Promise<StepRecord[]> {
  const done: StepRecord[] = [];
  for (const [i, effect] of effects.entries()) done.push(...(await perform(place, at, effect, i)));
  return done;
}

async function perform(place: EffectPlace, at: number, effect: ResolvedEffect, index: number): Promise<StepRecord[]> {
  const { db, now, machine, parts, eventId, title } = place;
  switch (effect.kind) {
    case 'book':
      await said(place, at, { code: 'line', text: effect.text });
      return [];
    case 'materials':
      await said(place, at, { code: 'used', used: effect.used });
      return [];
    case 'inspect': {
      const surfaceId = parts[effect.part] ?? null;
      await saveInspection(db, uuidOfName(`${eventId} ${index}`, NAMESPACE), {
        surfaceId,
        machineId: surfaceId === null ? machine.id : null,
        card: effect.card,
        code: effect.code,
        numbers: effect.numbers,
        note: `${title} on ${machine.name}`,
        at,
      });
      return [];
    }
    case 'mount': {
      const surfaceId = parts[effect.part];
      if (surfaceId === undefined) return [];
      const put = await wholeOrNot(place, at, surfaceId, (trx) => putOn({ ...place, db: trx }, effect, surfaceId, at));
      return [...put.map(asRecord), ...(await keepMeasured(place, at, surfaceId))];
    }
    case 'level': {
      const raw = noteFromJob(effect.way, effect.drag, effect.readings);
      if (raw === null) return [];
      const id = uuidOfName(`${eventId} ${index}`, NAMESPACE);
      await keepLevelNote(db, id, { machineId: machine.id, at, raw }, place.jobId);
      return [{ kind: 'level-note', id }];
    }
    case 'key': {
      const was = await keepPlatformKey(db, machine.id, effect.key, at);
      return was === undefined ? [] : [{ kind: 'key', machineId: machine.id, was, now: effect.key }];
    }
    case 'offset': {
      const on = (await readStack(db, machine.id)).layers.at(-1)?.surfaceId ?? null;
      const id = uuidOfName(`${eventId} ${index}`, NAMESPACE);
      const kept = await wholeOrNot(place, at, on, async (trx) => {
        if (on === null)
          throw new Problem(422, 'nothing-on', 'The offset was not kept: no surface lies on the machine.');
        await keepOffset(trx, id, {
          machineId: machine.id,
          surfaceId: on,
          offset: effect.offset,
          weight: 1,
          note: title,
          at,
        });
        return [id];
      });
      return kept.map(() => ({ kind: 'offset', id }));
    }
    case 'lapped':
    case 'surveyed': {
      const raw = shapeFromJob(effect, machine);
      if (raw === null) return [];
      const id = uuidOfName(`${eventId} ${index}`, NAMESPACE);
      const surfaceId = parts[effect.part] ?? null;
      await keepShape(db, id, { machineId: machine.id, surfaceId, at, raw }, { jobId: place.jobId });
      return [{ kind: 'shape', id }];
    }
    case 'zero':
    case 'home-moved': {
      const id = uuidOfName(`${eventId} ${index}`, NAMESPACE);
      const kind = effect.kind === 'zero' ? 'zero' : 'home';
      await keepZMark(db, id, { machineId: machine.id, kind, at }, place.jobId);
      return [{ kind: 'z-mark', id }];
    }
    case 'lay-layers': {
      const laid = await layPlain(db, machine.id, place.plain, at);
      return laid.length > 0 ? [{ kind: 'layers', machineId: machine.id, laid }] : [];
    }
    case 'lift-layers': {
      const part = await partOf(place, effect.part);
      if (!part) return [];
      const under = slotOf(part.kind.group);
      const lifted = (await plainLayers(db, machine.id)).filter((layer) => layer.under === under);
      if (lifted.length === 0) return [];
      await liftPlain(db, machine.id, lifted, at);
      return [{ kind: 'lifted', machineId: machine.id, lifted }];
    }
    case 'thickness': {
      const surfaceId = parts[effect.part];
      if (surfaceId === undefined) return [];
      const was = await keepThickness(db, surfaceId, { thickness: effect.thickness, at, by: title });
      return was === undefined ? [] : [{ kind: 'thickness', surfaceId, was, now: effect.thickness }];
    }
    default: {
      const surfaceId = parts[effect.part];
      if (surfaceId === undefined) return [];
      const recorded = await wholeOrNot(place, at, surfaceId, async (trx) => {
        const event = await eventFor({ ...place, db: trx }, surfaceId, effect, at);
        return event === null ? [] : [await recordEvent(trx, surfaceId, event, now)];
      });
      return recorded.map(asRecord);
    }
  }
}

/** Lines of light or rounds of lapping as a record keeps them; null: a line was not looked at. */
function shapeFromJob(
  effect: Extract<ResolvedEffect, { kind: 'lapped' | 'surveyed' }>,
  { plateWidth, plateDepth }: Machine,
): ShapeRaw | null {
  if (effect.kind === 'lapped') return { kind: 'lap', rounds: effect.rounds, school: effect.school, grit: null };
  const plate = { width: plateWidth, depth: plateDepth };
  const lines = linesByReadings(effect.readings, effect.lines, plate);
  return (
    lines && {
      kind: 'light',
      plate,
      lines: lines.map(({ id, stretches }) => ({ id: id as SurveyLineId, stretches })),
      aim: null,
    }
  );
}

const asRecord = (recorded: Recorded): StepRecord => ({ kind: 'event', recorded });

/** A line in the book of the job's machine. */
const said = ({ db, machine, jobId }: EffectPlace, at: number, what: CareEvents['job-step']['said']) =>
  writeEntry(db, { at, kind: 'job-step', machineId: machine.id, data: { jobId, said: what } });

async function partOf({ db, parts }: EffectPlace, part: string) {
  const surfaceId = parts[part];
  return surfaceId === undefined ? null : findSurface(db, surfaceId);
}

type PartEffect = Extract<ResolvedEffect, { kind: 'take-off' | 'hold' | 'release' | 'retire' | 'work' }>;

/** What happens to a surface; null: it stands so already. */
async function eventFor(
  { db }: EffectPlace,
  surfaceId: string,
  effect: PartEffect,
  at: number,
): Promise<SurfaceEvent | null> {
  const surface = await findSurface(db, surfaceId);
  if (!surface) return null;
  switch (effect.kind) {
    case 'take-off':
      return surface.state.where.kind === 'machine' ? { kind: 'taken-off', at, place: effect.place } : null;
    case 'hold':
      return { kind: 'held', at, hold: effect.hold, until: at + effect.hours * HOUR, reason: effect.reason };
    case 'release':
      return isHeld(surface.state, at) ? { kind: 'hold-cut', at, reason: effect.reason } : null;
    case 'retire':
      if (surface.state.retired !== null) return null;
      // Only a lead retires; who may not leaves it as work for one.
      return (await isLead(db))
        ? { kind: 'retired', at, why: effect.why }
        : { kind: 'work-asked', at, what: `a lead retires it: ${effect.why}` };
    case 'work':
      return { kind: 'work-done', at, work: effect.work, side: null, note: effect.note };
  }
}

/**
 * Puts a part on the job's machine by the same way as a screen does, with the same checks. What only eyes can see, the
 * step's own gates have asked; what the records alone know (size, heat) is written down as not asked.
 */
async function putOn(
  place: EffectPlace,
  effect: Extract<ResolvedEffect, { kind: 'mount' }>,
  surfaceId: string,
  at: number,
): Promise<Recorded[]> {
  const { db, machine, now } = place;
  const surface = await findSurface(db, surfaceId);
  if (!surface) return [];
  const { where } = surface.state;
  if (where.kind === 'machine' && where.machineId === machine.id) return [];
  const how = {
    surfaceId,
    sideUp: surface.kind.sides.length > 1 ? (place.sides[effect.part] ?? 'A') : ('A' as const),
    turned: 0 as const,
  };
  const { asks, from, replaces } = await askToMount(db, machine.id, how, now);
  const recorded = await mount(
    db,
    machine.id,
    {
      ...how,
      answers: asks.map(({ code }) => code),
      from: from?.machineId ?? null,
      replaces: replaces && { surfaceId: replaces.surfaceId, place: '' },
      at,
    },
    now,
  );
  const unasked = asks.filter(({ code }) => code === 'size' || code === 'heat');
  if (unasked.length > 0) await said(place, at, { code: 'not-asked', tag: surface.tag, asks: unasked });
  return recorded;
}

/** Does it whole or not at all; what the records refuse is written into the book with its reason. */
export async function wholeOrNot<T>(
  place: EffectPlace,
  at: number,
  surfaceId: string | null,
  act: (db: Knex) => Promise<T[]>,
): Promise<T[]> {
  try {
    return await within(place.db, act);
  } catch (error) {
    if (!(error instanceof ImpossibleEvent || error instanceof Problem)) throw error;
    await writeEntry(place.db, {
      at,
      kind: 'job-step',
      machineId: place.machine.id,
      ...(surfaceId === null ? {} : { surfaceId }),
      data: { jobId: place.jobId, said: { code: 'not-possible', title: place.title, why: error.message } },
    });
    return [];
  }
}

/** Whoever acts is a lead; the demo and commands act for nobody. */
export async function isLead(db: Knex): Promise<boolean> {
  const id = actorOf(db);
  return id === null || (await findPerson(db, id))?.role === 'lead';
}

/** What calipers said of a surface in the job stays with it, and so does what lies under it. */
async function keepMeasured(
  { db, machine, measured, plain, title }: EffectPlace,
  at: number,
  surfaceId: string,
): Promise<StepRecord[]> {
  const surface = await findSurface(db, surfaceId);
  if (!surface) return [];
  const done: StepRecord[] = [];
  const slot = slotOf(surface.kind.group);
  const thickness = measured[slot];
  if (thickness !== undefined) {
    const was = await keepThickness(db, surfaceId, { thickness, at, by: title });
    if (was !== undefined) done.push({ kind: 'thickness', surfaceId, was, now: thickness });
  }
  const under = plain.filter((layer) => layer.under === slot);
  const laid = under.length > 0 ? await layPlain(db, machine.id, under, at) : [];
  if (laid.length > 0) done.push({ kind: 'layers', machineId: machine.id, laid });
  return done;
}
