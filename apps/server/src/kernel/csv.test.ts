import { csv, defused } from './csv';

// Beginnings from OWASP, CSV Injection.
test.each([
  ['=1+1', "'=1+1"],
  ['=HYPERLINK("http://x","y")', `'=HYPERLINK("http://x","y")`],
  ['+cmd|calc', "'+cmd|calc"],
  ['-2+3', "'-2+3"],
  ['@SUM(A1)', "'@SUM(A1)"],
  ['\t=1', "'\t=1"],
  ['-0.25', '-0.25'],
  ['-0,25', '-0,25'],
  ['plain', 'plain'],
  [-0.25, '-0.25'],
  [null, ''],
  [true, 'yes'],
])('%j becomes %j', (cell, text) => expect(defused(cell)).toBe(text));

test('cells with quotes, commas and lines are quoted as RFC 4180 says', () =>
  expect(
    csv([
      ['a', 'b'],
      ['1,5 "x"', 'two\nlines'],
    ]),
  ).toBe('\uFEFFa,b\r\n"1,5 ""x""","two\nlines"\r\n'));
