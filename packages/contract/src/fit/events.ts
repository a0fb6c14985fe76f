import type { ToolAnswers, ToolId } from '@even-bed/core';
import { eventsOf } from '../kit/event';

/** What the tool answered when a plan was kept: facts, or in lines from before these were kept, its sentence. */
export type PlanSaid =
  { [T in ToolId]: { tool: T; answer: ToolAnswers[T] } }[ToolId] | { tool: ToolId; sentence: string };

export interface FitEvents {
  'plan-kept': { planId: string; title: string } & PlanSaid;
  'plan-withdrawn': { planId: string; title: string };
}

export const fitEvents = eventsOf<FitEvents>()({
  'plan-kept': { touches: ['Plan'] },
  'plan-withdrawn': { touches: ['Plan'] },
});
