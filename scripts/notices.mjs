// The terms of every part by others that the built app carries, read from what went into it.
import fs from 'node:fs';
import path from 'node:path';
import { ROOT } from './ensure.mjs';

/** Parts that no source map names: drawn, copied or written by the build itself. */
const BESIDE_THE_CODE = ['@expo-google-fonts/atkinson-hyperlegible-next', '@mdi/svg', 'workbox-core'];
const TERMS = /^(licen[cs]e|copying|notice|ofl)/i;

/** The folders of the packages named in the source maps under `folder`, without those of the shop's own parts. */
function packagesIn(folder) {
  const found = new Set();
  const maps = fs.readdirSync(folder, { recursive: true });
  for (const name of maps) {
    if (!name.endsWith('.map')) continue;
    const { sources } = JSON.parse(fs.readFileSync(path.join(folder, name), 'utf8'));
    for (const source of sources) {
      const at = source.lastIndexOf('node_modules/');
      if (at < 0) continue;
      const [scope, rest] = source.slice(at + 'node_modules/'.length).split('/');
      const inner = source.slice(source.indexOf('node_modules/'), at + 'node_modules/'.length);
      found.add(inner + (scope.startsWith('@') ? `${scope}/${rest}` : scope));
    }
  }
  return found;
}

/** One text with the name, version and terms of each package, sorted by name. */
export function noticesOf(folder) {
  const parts = new Set([...packagesIn(folder), ...BESIDE_THE_CODE.map((name) => `node_modules/${name}`)]);
  const notices = [];
  for (const part of [...parts].sort()) {
    const home = [ROOT, path.join(ROOT, 'apps/client')].map((root) => path.join(root, part)).find(fs.existsSync);
    if (!home) continue;
    const { name, version, license, author } = JSON.parse(fs.readFileSync(path.join(home, 'package.json'), 'utf8'));
    const by = typeof author === 'string' ? author : author?.name;
    const texts = fs
      .readdirSync(home)
      .filter((file) => TERMS.test(file) && fs.statSync(path.join(home, file)).isFile())
      .map((file) => fs.readFileSync(path.join(home, file), 'utf8').trim());
    const head = [`${name} ${version}`, license, by].filter(Boolean).join(' · ');
    notices.push([head, ...texts].join('\n\n'));
  }
  return { count: notices.length, text: notices.join(`\n\n${'-'.repeat(72)}\n\n`) };
}
