import { ImpossibleEvent, takeBack } from '@even-bed/core';
import type { Knex } from 'knex';
import { fittedAt, isTaken } from '../surfaces/spanStore';
import { findMachine, keepPlatformKey } from '../fleet/store';
import { withdrawLevelNote, withdrawZMark } from '../level/noteStore';
import { withdrawShape } from '../level/shapeStore';
import { withdrawOffset } from '../surfaces/offsetStore';
import { layPlain, liftPlain } from '../surfaces/stackStore';
import { countAsBefore, findSurface, keepThickness, needSurface, recordEvent, type Recorded } from '../surfaces/store';
import { wholeOrNot, type EffectPlace, type StepRecord } from './jobEffects';

/**
 * Takes back what a step changed in the records, the last first, by events that say so. What was looked at, used and said
 * stays written. What somebody has changed since is left alone, and the book says that it was.
 */
export async function reverseEffects(place: EffectPlace, at: number, records: readonly StepRecord[]): Promise<void> {
  for (const record of [...records].reverse()) {
    const surfaceId =
      record.kind === 'event' ? record.recorded.surfaceId : record.kind === 'thickness' ? record.surfaceId : null;
    await wholeOrNot(place, at, surfaceId, async (trx) => {
      await reverse({ ...place, db: trx }, at, record);
      return [];
    });
  }
}

async function reverse({ db, title, now }: EffectPlace, at: number, record: StepRecord): Promise<void> {
  switch (record.kind) {
    case 'event':
      return reverseEvent(db, record.recorded, { at, now, why: `${title}: the step was undone` });
    case 'thickness': {
      const surface = await findSurface(db, record.surfaceId);
      if (surface && surface.thickness !== record.now)
        throw new ImpossibleEvent('no-change', 'Its thickness was measured again since.');
      return void (await keepThickness(db, record.surfaceId, { thickness: record.was, at, by: title }));
    }
    case 'layers':
      return liftPlain(db, record.machineId, record.laid, at);
    case 'level-note':
      return withdrawLevelNote(db, record.id, at);
    case 'key':
      if ((await findMachine(db, record.machineId))?.platformKey !== record.now)
        throw new ImpossibleEvent('no-change', 'The key of the platform was changed since.');
      return void (await keepPlatformKey(db, record.machineId, record.was, at));
    case 'offset':
      return withdrawOffset(db, record.id, at);
    case 'shape':
      return withdrawShape(db, record.id, at);
    case 'z-mark':
      return withdrawZMark(db, record.id, at);
    case 'lifted':
      return void (await layPlain(db, record.machineId, record.lifted, at));
  }
}

async function reverseEvent(
  db: Knex,
  recorded: Recorded,
  { at, now, why }: { at: number; now: number; why: string },
): Promise<void> {
  const { surfaceId, event } = recorded;
  const { state, tag } = await needSurface(db, surfaceId);
  if (event.kind === 'mounted' && (await fittedAt(db, surfaceId)) !== event.at)
    throw new ImpossibleEvent('no-change', `${tag} was taken off since.`);
  for (const back of takeBack(recorded, state, at, why)) {
    if (back.kind === 'mounted' && (await isTaken(db, back.machineId, back.slot)))
      throw new ImpossibleEvent('no-change', `Something else lies in the place of ${tag} now.`);
    await recordEvent(db, surfaceId, back, now);
  }
  await countAsBefore(db, recorded);
}
