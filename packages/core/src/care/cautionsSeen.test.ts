import type { CautionId } from './cautions';
import { cautionsSeen } from './cautionsSeen';
import type { Procedure } from './procedure';

const HOUR = 3_600_000;
const step = (id: string, cautions: CautionId[]) => ({ id, cautions }) as Procedure['steps'][number];
const procedure = { steps: [step('a', ['hot']), step('b', ['blade', 'hot']), step('c', ['dust'])] } as Procedure;
const left = (stepId: string, leftAt: number) => ({ stepId, enteredAt: 0, leftAt, how: 'done' as const });

test('what was read in this job lately is seen; what comes, what is long ago and what another person read is not', () => {
  const trail = [left('a', HOUR), left('b', 2 * HOUR)];
  expect([...cautionsSeen({ procedure }, { trail, holderId: null }, 3 * HOUR)].sort()).toEqual(['blade', 'hot']);
  expect([...cautionsSeen({ procedure }, { trail, holderId: null }, 5.5 * HOUR)].sort()).toEqual(['blade', 'hot']);
  expect([...cautionsSeen({ procedure }, { trail: [left('a', HOUR)], holderId: null }, 5.5 * HOUR)]).toEqual([]);
  expect([...cautionsSeen({ procedure }, { trail, holderId: 'somebody' }, 3 * HOUR)]).toEqual([]);
  expect([...cautionsSeen({ procedure }, { trail: [], holderId: null }, 0)]).toEqual([]);
});
