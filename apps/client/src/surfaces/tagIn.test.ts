import { tagIn } from './tagIn';

test.each([
  ['http://192.168.1.20:4242/t/S-014', 'S-014'],
  ['https://bench.saltmarsh.example/t/m-001/', 'M-001'],
  [' s-014 ', 'S-014'],
  ['s014', 'S-014'],
  ['S 014', 'S-014'],
])('%s', (text, tag) => expect(tagIn(text)).toBe(tag));

test.each(['', 'http://elsewhere.example/', '014', 'http://x/t/', 'javascript:alert(1)', 'S-014; drop'])(
  '“%s” holds none',
  (text) => expect(tagIn(text)).toBeNull(),
);
