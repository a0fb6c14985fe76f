import type { Machine, MountAnswer, MountWrite, Surface } from '@even-bed/contract';
import { checkMount, slotOf, type MountRefusal, type QuarterTurn, type Side } from '@even-bed/core';
import { mountAskWords, mountRefusalWords } from '@even-bed/words';
import type { Knex } from 'knex';
import { findMachine } from '../fleet/store';
import { notFound, Problem } from '../kernel/problem';
import { materialsLately } from '../wear/store';
import { shopSettings } from '../manner/store';
import { needSurface, recordEvent, surfacesIn, type Recorded } from './store';

async function needMachine(db: Knex, id: string): Promise<Machine> {
  const machine = await findMachine(db, id);
  if (!machine) throw notFound('This machine');
  return machine;
}

/** What stands against putting a surface on a machine, what has to be looked at first, and what gives way. */
export async function askToMount(
  db: Knex,
  machineId: string,
  { surfaceId, sideUp, turned }: { surfaceId: string; sideUp: Side; turned: QuarterTurn },
  now: number,
): Promise<MountAnswer> {
  const machine = await needMachine(db, machineId);
  const surface = await needSurface(db, surfaceId);
  const slot = slotOf(surface.kind.group);
  const inIt = await surfacesIn(db, machineId);
  const replaced = inIt.find(({ id, state }) => id !== surfaceId && inSlot(state) === slot) ?? null;
  const layers = inIt.filter(({ id }) => id !== surfaceId && id !== replaced?.id);
  const check = checkMount({
    surface: {
      tag: surface.tag,
      group: surface.kind.group,
      slot,
      width: surface.width,
      depth: surface.depth,
      limit: surface.kind.limit,
      directional: surface.kind.directional,
      face: surface.kind.faces[sideUp === 'B' ? 1 : 0] ?? null,
      state: surface.state,
    },
    machine: {
      ...machine,
      printedLately: await materialsLately(db, machineId),
      layers: layers.map(({ tag, kind, state }) => ({
        slot: inSlot(state)!,
        tag,
        group: kind.group,
        directional: kind.directional,
        turned: state.where.kind === 'machine' ? state.where.turned : 0,
        limit: kind.limit,
      })),
    },
    turned,
    now,
  });
  const { where } = surface.state;
  if (where.kind === 'machine' && where.machineId === machineId)
    check.refusals.push({ code: 'here', tag: surface.tag, machine: machine.name });
  return {
    ...check,
    surfaceId,
    tag: surface.tag,
    slot,
    from:
      where.kind === 'machine' && where.machineId !== machineId
        ? { machineId: where.machineId, machineName: surface.machineName! }
        : null,
    replaces: replaced ? { surfaceId: replaced.id, tag: replaced.tag } : null,
  };
}

const inSlot = ({ where }: Surface['state']) => (where.kind === 'machine' ? where.slot : null);

/**
 * Puts a surface on a machine, in one go with what gives way: it is taken off the machine where it lies, and what lies
 * in its place here goes to the rack. What the person was told must still be so, and every question answered.
 * @returns what was written down, in its order
 */
export async function mount(db: Knex, machineId: string, write: MountWrite, now: number): Promise<Recorded[]> {
  const { surfaceId, sideUp, turned, answers, from, replaces } = write;
  const asked = await askToMount(db, machineId, { surfaceId, sideUp, turned }, now);
  const [refusal] = asked.refusals;
  if (refusal) throw refused(refusal);
  if ((asked.from?.machineId ?? null) !== from)
    throw new Problem(
      409,
      'elsewhere',
      asked.from
        ? `${asked.tag} lies on ${asked.from.machineName}. Putting it here takes it off there; say so first.`
        : `${asked.tag} is in the rack now, no longer on another machine. Look again.`,
    );
  if ((asked.replaces?.surfaceId ?? null) !== (replaces?.surfaceId ?? null))
    throw new Problem(
      409,
      'occupied',
      asked.replaces
        ? `${asked.replaces.tag} lies there. Say where it goes, then put ${asked.tag} on.`
        : 'What lay there was taken off meanwhile. Look again.',
    );
  const open = asked.asks.find(({ code }) => !answers.includes(code));
  if (open) {
    const text = mountAskWords(open, await shopSettings(db));
    throw new Problem(422, 'unanswered', text, { fields: { answers: text } });
  }
  const surface = await needSurface(db, surfaceId);
  if (sideUp === 'B' && surface.kind.sides.length < 2)
    throw new Problem(422, 'one-sided', `${surface.tag} has one side to print on.`, {
      fields: { sideUp: 'It has one side to print on.' },
    });
  const at = write.at;
  const done: Recorded[] = [];
  if (replaces)
    done.push(await recordEvent(db, replaces.surfaceId, { kind: 'taken-off', at, place: replaces.place }, now));
  if (from !== null) done.push(await recordEvent(db, surfaceId, { kind: 'taken-off', at, place: '' }, now));
  done.push(
    await recordEvent(db, surfaceId, { kind: 'mounted', at, machineId, slot: asked.slot, sideUp, turned }, now),
  );
  return done;
}

const refused = (refusal: MountRefusal) => new Problem(409, refusal.code, mountRefusalWords(refusal));

/** Refuses to lay a surface across the poles of what it lies on or under; the rest of turning is the state's matter. */
export async function refuseCrossedPoles(db: Knex, surface: Surface, turned: QuarterTurn, now: number): Promise<void> {
  if (surface.state.where.kind !== 'machine') return;
  const { machineId, sideUp } = surface.state.where;
  const asked = await askToMount(db, machineId, { surfaceId: surface.id, sideUp, turned }, now);
  const poles = asked.refusals.find(({ code }) => code === 'poles');
  if (poles) throw refused(poles);
}
