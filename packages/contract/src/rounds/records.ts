import Joi from 'joi';
import { idField, record, toldTime } from '../kit/fields';

/** What a rule asks for. More kinds come with the work they ask for. */
export type RuleKind = 'level';

/** Upkeep that comes back every so many days. */
export interface Rule {
  id: string;
  machineId: string;
  kind: RuleKind;
  everyDays: number;
  lastDoneAt: number | null;
  nextDueAt: number;
  version: number;
}

export const ruleWriteSchema = record<RuleWrite>({
  machineId: idField().required().label('Machine'),
  kind: Joi.string().valid('level').required().label('Kind'),
  everyDays: Joi.number().integer().min(1).max(730).required().label('Days between checks'),
  version: Joi.number().integer().min(0).required().label('Version'),
  at: toldTime('Time').required(),
});
export type RuleWrite = Pick<Rule, 'machineId' | 'kind' | 'everyDays' | 'version'> & { at: number };
