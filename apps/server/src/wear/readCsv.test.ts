import { readTime } from '@even-bed/core/wear/readTime';
import { readCsv } from './readCsv';

test('a line that says what parts the cells is no line of heads', () => {
  expect(readCsv(Buffer.from('sep=;\r\nmachine;ended\r\nDunlin;1,5'))).toEqual({
    heads: ['machine', 'ended'],
    lines: [['Dunlin', '1,5']],
  });
});

test('letters of an older table program stay what they are', () => {
  const latin = Buffer.from([...Buffer.from('machine\nM'), 0xfc, ...Buffer.from('we')]);
  expect(readCsv(latin).lines).toEqual([['M\u00fcwe']]);
  expect(readCsv(Buffer.from('machine\nM\u00fcwe')).lines).toEqual([['M\u00fcwe']]);
});

test('a time that was written with its thousandths is read back as the same moment', () => {
  const at = Date.UTC(2026, 4, 6, 7, 8, 9, 123);
  expect(readTime(new Date(at).toISOString(), { dayFirst: true, zone: 'Europe/Berlin' })).toBe(at);
  expect(readTime('2026-05-06T07:08:09,5Z', { dayFirst: true, zone: 'UTC' })).toBe(Date.UTC(2026, 4, 6, 7, 8, 9, 500));
});
