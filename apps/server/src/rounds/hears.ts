import type { Hearers } from '../kernel/bus';
import { ruleDone } from './store';

/** A finished check moves the machine's next date. */
export const roundsHears: Hearers = {
  'check-finished': (db, { at, machineId }) => ruleDone(db, machineId!, 'level', at),
};
