import { EMPTY_ROW, isEmptyRow, readRow, withDay } from './gridRows';

const NOW = new Date(2026, 10, 25, 15).getTime();
const machines = [{ id: 'm1', name: 'Dunlin', tag: 'M-001' }];
const read = (row: Partial<typeof EMPTY_ROW>) => readRow({ ...EMPTY_ROW, ...row }, { machines, zone: 'UTC', now: NOW });

test('a time alone is the last time that the clock showed it', () => {
  expect(new Date(withDay('14:20', NOW)).getTime()).toBe(new Date(2026, 10, 25, 14, 20).getTime());
  expect(new Date(withDay('16:00', NOW)).getTime()).toBe(new Date(2026, 10, 24, 16).getTime());
  expect(withDay('25.11.2026 14:20', NOW)).toBe('25.11.2026 14:20');
});

test('a date that can be read either way is not guessed at', () => {
  const dated = (ended: string) => read({ machine: 'Dunlin', ended, held: 'yes' });
  expect(dated('03/04/2026 10:00')).toMatchObject({
    ok: false,
    faults: { ended: expect.stringContaining('Day or month') },
  });
  expect(dated('25/10/2026 10:00')).toMatchObject({ print: { endedAt: Date.UTC(2026, 9, 25, 10) } });
  expect(dated('10/25/2026 10:00')).toMatchObject({ print: { endedAt: Date.UTC(2026, 9, 25, 10) } });
});

test('rows are read with machines by name or tag, decimal commas and failures', () => {
  expect(read({ machine: 'm-001', ended: '2026-11-25T10:00Z', held: 'no', grams: '12,5', failure: 'warped' })).toEqual({
    ok: true,
    print: expect.objectContaining({ machineId: 'm1', held: false, grams: 12.5, failure: 'lifted-corner' }),
  });
  expect(read({ machine: 'Gull', ended: '10:00', held: 'yes' })).toEqual({
    ok: false,
    faults: { machine: expect.any(String) },
  });
  expect(read({ machine: 'Dunlin' })).toMatchObject({
    ok: false,
    faults: { ended: expect.any(String), held: expect.any(String) },
  });
  expect(isEmptyRow(EMPTY_ROW)).toBe(true);
});
