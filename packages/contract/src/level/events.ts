import type { LevelNoteResult, NoteWay, SeenFrom, ShapeKind, ShapeResult } from '@even-bed/core';
import { eventsOf, type EventFacts } from '../kit/event';
import type { Lesson } from '@even-bed/core/level/practiceBed';
import type { ZMarkKind } from './notes';
import type { HeightSource } from './records';

/** A turn as it was made: signed, + clockwise looking down, with the name that its adjuster had. */
export interface NamedTurn {
  adjusterId: string;
  name: string;
  turns: number;
  /** A motor drives it: turns are mm, + up. */
  motor?: true;
}

/** Heights and aims in mm. */
export interface LevelEvents {
  'check-started': { aim: number };
  'heights-read': {
    roundId: string;
    seq: number;
    source: HeightSource;
    points: number;
    range: number;
    /** What the range should be after the turns. */
    predicted: number;
  };
  'turns-made': { roundId: string; turns: NamedTurn[]; seenFrom: SeenFrom };
  'check-finished': { before: number; after: number; aim: number; rounds: number; note: string };
  'check-dropped': { before: number | null; after: number | null; aim: number; rounds: number; note: string };
  'level-noted': { noteId: string; way: NoteWay; verdict: LevelNoteResult['verdict']; range: LevelNoteResult['range'] };
  'level-note-withdrawn': { noteId: string; way: NoteWay };
  'shape-noted': { shapeId: string; result: ShapeResult };
  'shape-withdrawn': { shapeId: string; shape: ShapeKind };
  'gauge-kept': { gaugeId: string; name: string; thickness: number; uncertainty: number };
  'gauge-withdrawn': { gaugeId: string; name: string };
  practised: { practiceId: string; lesson: Lesson; seed: number; points: number; touches: number; best: number };
  'z-marked': { markId: string; mark: ZMarkKind };
  'z-mark-withdrawn': { markId: string; mark: ZMarkKind };
}

const check: EventFacts = { touches: ['Check', 'Machine', 'Level'] };
const level: EventFacts = { touches: ['Level'] };

export const levelEvents = eventsOf<LevelEvents>()({
  'check-started': check,
  'heights-read': check,
  'turns-made': check,
  'check-finished': check,
  'check-dropped': check,
  'level-noted': level,
  'level-note-withdrawn': level,
  'shape-noted': level,
  'shape-withdrawn': level,
  'gauge-kept': level,
  'gauge-withdrawn': level,
  practised: { touches: [] },
  'z-marked': level,
  'z-mark-withdrawn': level,
});
