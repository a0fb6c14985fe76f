// Writes apps/client/src/ui/iconPaths.ts from the Material Design Icons set: only the paths that the app draws.
import fs from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';

const require = createRequire(import.meta.url);
const folder = path.join(path.dirname(require.resolve('@mdi/svg/package.json')), 'svg');
const target = path.join(import.meta.dirname, '../apps/client/src/ui/iconPaths.ts');

const USED = {
  bench: 'table-furniture',
  floor: 'view-grid-outline',
  book: 'book-outline',
  search: 'magnify',
  close: 'close',
  back: 'chevron-left',
  next: 'chevron-right',
  down: 'chevron-down',
  up: 'chevron-up',
  add: 'plus',
  remove: 'minus',
  edit: 'pencil-outline',
  check: 'check',
  console: 'console-line',
  paste: 'clipboard-text-outline',
  file: 'file-outline',
  type: 'grid',
  measure: 'ruler',
  stop: 'stop-circle-outline',
  waiting: 'cloud-upload-outline',
  offline: 'cloud-off-outline',
  warning: 'alert-outline',
  keys: 'keyboard-outline',
  light: 'white-balance-sunny',
  dark: 'weather-night',
  print: 'printer-outline',
  person: 'account-outline',
  lock: 'lock-outline',
  rack: 'wardrobe-outline',
  rounds: 'history',
  settings: 'tune-variant',
  camera: 'camera-outline',
  code: 'qrcode-scan',
  label: 'label-outline',
  flip: 'swap-vertical',
  turn: 'rotate-right',
  takeOff: 'tray-arrow-up',
  mount: 'tray-arrow-down',
  hold: 'timer-sand',
  list: 'format-list-bulleted',
  photo: 'image-outline',
  look: 'eye-outline',
  failed: 'alert-outline',
  download: 'tray-arrow-down',
};

const entries = Object.entries(USED).map(([name, file]) => {
  const svg = fs.readFileSync(path.join(folder, `${file}.svg`), 'utf8');
  const [, d] = /<path d="([^"]+)"/.exec(svg);
  return `  ${name}:\n    '${d}',`;
});

fs.writeFileSync(
  target,
  `// Made by scripts/icons.mjs from Material Design Icons (Pictogrammers, Apache License 2.0). Don't edit by hand.\n\n` +
    `/** Paths on a 24 × 24 field, by what the app means by them. */\nexport const ICON_PATHS = {\n${entries.join('\n')}\n} as const;\n\n` +
    `export type IconName = keyof typeof ICON_PATHS;\n`,
);
