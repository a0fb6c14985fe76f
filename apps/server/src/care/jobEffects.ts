import type { CareEvents, Machine, PlainLayer } from '@even-bed/contract';
import { ImpossibleEvent, slotOf, type ResolvedEffect, type Side, type Slot, type SurfaceEvent } from '@even-bed/core';
import { placeBeforeMount } from '../book/store';
import type { Knex } from 'knex';
import { v5 as uuidOfName } from 'uuid';
import { writeEntry } from '../kernel/book';
import { actorOf, within } from '../kernel/acting';
import { findPerson } from '../people/store';
import { askToMount } from '../surfaces/mount';
import { layPlain } from '../surfaces/stackStore';
import { endedSpan, gaveWayTo, isTaken, mountedAs, openSpan } from '../surfaces/spanStore';
import { findSurface, keepThickness, recordEvent, surfacesIn } from '../surfaces/store';
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

const HOUR = 3_600_000;
/** Namespace of the ids of what steps write down (a fixed, random UUID). */
const NAMESPACE = 'b7c1a4de-52a1-4c70-9d0a-6f1a0a8a2f11';

/**
 * Brings the records to where the hands have brought the things. What the records do not allow is written into the book
 * with its reason: the step is done all the same, and a job must not stop because a sheet was never entered.
 */
export async function performEffects(
  place: EffectPlace,
  at: number,
  effects: readonly ResolvedEffect[],
): Promise<void> {
  for (const [i, effect] of effects.entries()) await perform(place, at, effect, i);
}

async function perform(place: EffectPlace, at: number, effect: ResolvedEffect, index: number): Promise<void> {
  const { db, now, machine, parts, eventId, title } = place;
  switch (effect.kind) {
    case 'book':
      return said(place, at, { code: 'line', text: effect.text });
    case 'materials':
      return said(place, at, { code: 'used', used: effect.used });
    case 'inspect': {
      const surfaceId = parts[effect.part] ?? null;
      return saveInspection(db, uuidOfName(`${eventId} ${index}`, NAMESPACE), {
        surfaceId,
        machineId: surfaceId === null ? machine.id : null,
        card: effect.card,
        code: effect.code,
        numbers: effect.numbers,
        note: `${title} on ${machine.name}`,
        at,
      });
    }
    default: {
      const surfaceId = parts[effect.part];
      if (surfaceId === undefined) return;
      await recorded(place, at, surfaceId, async (trx) => {
        for (const event of await eventsFor({ ...place, db: trx }, surfaceId, effect, at))
          await recordEvent(trx, event.surfaceId, event.event, now);
      });
      if (effect.kind === 'mount') await keepMeasured(place, at, surfaceId);
      return;
    }
  }
}

/** A line in the book of the job's machine. */
const said = ({ db, machine, jobId }: EffectPlace, at: number, what: CareEvents['job-step']['said']) =>
  writeEntry(db, { at, kind: 'job-step', machineId: machine.id, data: { jobId, said: what } });

type PartEffect = Exclude<ResolvedEffect, { kind: 'book' | 'materials' | 'inspect' }>;

/** What happens to which surface: a mount takes off first what lies in its place. */
async function eventsFor(
  place: EffectPlace,
  surfaceId: string,
  effect: PartEffect,
  at: number,
): Promise<{ surfaceId: string; event: SurfaceEvent }[]> {
  const { db, machine } = place;
  const surface = await findSurface(db, surfaceId);
  if (!surface) return [];
  const own = (event: SurfaceEvent) => ({ surfaceId, event });
  switch (effect.kind) {
    case 'take-off':
      return surface.state.where.kind === 'machine' ? [own({ kind: 'taken-off', at, place: effect.place })] : [];
    case 'hold':
      return [own({ kind: 'held', at, hold: effect.hold, until: at + effect.hours * HOUR, reason: effect.reason })];
    case 'retire':
      if (surface.state.retired !== null) return [];
      // Only a lead retires; who may not leaves it as work for one.
      return (await isLead(db))
        ? [own({ kind: 'retired', at, why: effect.why })]
        : [own({ kind: 'work-asked', at, what: `a lead retires it: ${effect.why}` })];
    case 'work':
      return [own({ kind: 'work-done', at, work: effect.work, side: null, note: effect.note })];
    case 'mount': {
      const slot = slotOf(surface.kind.group);
      const { where } = surface.state;
      if (where.kind === 'machine' && where.machineId === machine.id) return [];
      const sideUp = surface.kind.sides.length > 1 ? (place.sides[effect.part] ?? 'A') : 'A';
      const { refusals } = await askToMount(db, machine.id, { surfaceId, sideUp, turned: 0 }, place.now);
      if (refusals.length > 0) throw new ImpossibleEvent('no-change', refusals.map(({ text }) => text).join(' '));
      const inPlace = (await surfacesIn(db, machine.id)).filter(
        ({ state }) => state.where.kind === 'machine' && state.where.slot === slot,
      );
      return [
        ...inPlace.map(({ id }) => ({ surfaceId: id, event: { kind: 'taken-off' as const, at, place: '' } })),
        ...(where.kind === 'machine' ? [own({ kind: 'taken-off', at, place: '' })] : []),
        own({ kind: 'mounted', at, machineId: machine.id, slot, sideUp, turned: 0 }),
      ];
    }
  }
}

/** Does it whole or not at all; what the records refuse is written into the book with its reason. */
async function recorded(
  place: EffectPlace,
  at: number,
  surfaceId: string,
  act: (db: Knex) => Promise<unknown>,
): Promise<void> {
  try {
    await within(place.db, act);
  } catch (error) {
    if (!(error instanceof ImpossibleEvent)) throw error;
    await writeEntry(place.db, {
      at,
      kind: 'job-step',
      machineId: place.machine.id,
      surfaceId,
      data: { jobId: place.jobId, said: { code: 'not-possible', title: place.title, why: error.message } },
    });
  }
}

/** Whoever acts is a lead; the demo and commands act for nobody. */
async function isLead(db: Knex): Promise<boolean> {
  const id = actorOf(db);
  return id === null || (await findPerson(db, id))?.role === 'lead';
}

/** What calipers said of a surface in the job stays with it. */
async function keepMeasured(
  { db, machine, measured, plain, title }: EffectPlace,
  at: number,
  surfaceId: string,
): Promise<void> {
  const surface = await findSurface(db, surfaceId);
  const thickness = surface && measured[slotOf(surface.kind.group)];
  if (thickness !== undefined && thickness !== null) await keepThickness(db, surfaceId, { thickness, at, by: title });
  const under = surface ? plain.filter((layer) => layer.under === slotOf(surface.kind.group)) : [];
  if (under.length > 0) await layPlain(db, machine.id, under, at);
}

/**
 * Takes back what a step changed, as the records say that it was; what was looked at, used and said stays written. What
 * the step did not change is left alone, and what somebody has changed since is written down as not taken back.
 * @param since when the step was done: nothing that stood before is touched, epoch ms
 */
export async function reverseEffects(
  place: EffectPlace,
  at: number,
  effects: readonly ResolvedEffect[],
  since: number,
): Promise<void> {
  for (const effect of [...effects].reverse()) {
    if (!('part' in effect) || effect.kind === 'inspect' || effect.kind === 'work') continue;
    const surfaceId = place.parts[effect.part];
    if (surfaceId === undefined) continue;
    await recorded(place, at, surfaceId, async (trx) => {
      for (const back of await eventsBack({ ...place, db: trx }, surfaceId, effect, at, since))
        await recordEvent(trx, back.surfaceId, back.event, place.now);
    });
  }
}

async function eventsBack(
  place: EffectPlace,
  surfaceId: string,
  effect: PartEffect,
  at: number,
  since: number,
): Promise<{ surfaceId: string; event: SurfaceEvent }[]> {
  const { db, machine } = place;
  const surface = await findSurface(db, surfaceId);
  if (!surface) return [];
  const { hold, retired } = surface.state;
  const why = `${place.title}: the step was undone`;
  const own = (event: SurfaceEvent) => ({ surfaceId, event });
  switch (effect.kind) {
    case 'hold':
      return hold ? [own({ kind: 'hold-cut', at, reason: why })] : [];
    case 'retire':
      return retired === null ? [] : [own({ kind: 'brought-back', at, why, place: '' })];
    case 'take-off': {
      const left = await endedSpan(db, surfaceId, since);
      if (left && (await isTaken(db, left)))
        throw new ImpossibleEvent('no-change', `Something else lies in the place of ${surface.tag} now.`);
      return left ? [own(mountedAs(left, at))] : [];
    }
    case 'mount': {
      const fitted = await openSpan(db, surfaceId);
      if (!fitted || fitted.machine_id !== machine.id || fitted.fitted_at < since) return [];
      const from = await endedSpan(db, surfaceId, since);
      return [
        // Off it comes in any case, to where it lay; back to another machine only where its place there is free.
        own({ kind: 'taken-off', at, place: await placeBeforeMount(db, surfaceId) }),
        ...(from && !(await isTaken(db, from)) ? [own(mountedAs(from, at))] : []),
        ...(await gaveWayTo(db, fitted)).map((span) => ({ surfaceId: span.surface_id, event: mountedAs(span, at) })),
      ];
    }
    case 'work':
      return [];
  }
}
