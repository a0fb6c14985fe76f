import sharp from 'sharp';
import { drawnPlate, type PlateLook } from './drawnPlate';

const SEED = 'a test';
/** Mean of all channels of a part of the picture, 0 to 255. */
async function brightness(look: PlateLook, part: { left: number; top: number; width: number; height: number }) {
  const { channels } = await sharp(
    await sharp(await drawnPlate(look, SEED))
      .extract(part)
      .toBuffer(),
  ).stats();
  return channels.slice(0, 3).reduce((sum, { mean }) => sum + mean / 3, 0);
}
const MIDDLE = { left: 480, top: 330, width: 240, height: 200 };
const UNDER_THE_EDGE = { left: 540, top: 472, width: 120, height: 12 };

test('a faded sheet is paler in its middle than an even one, the more the paler', async () => {
  const [even, some, much] = [
    await brightness({ kind: 'sheet', worn: 0 }, MIDDLE),
    await brightness({ kind: 'sheet', worn: 0.45 }, MIDDLE),
    await brightness({ kind: 'sheet', worn: 0.8 }, MIDDLE),
  ];
  expect(some).toBeGreaterThan(even + 10);
  expect(much).toBeGreaterThan(some + 10);
});

test('light shows under the straightedge where the card says so, and none where it says none', async () => {
  const none = await brightness({ kind: 'line', gap: 0 }, UNDER_THE_EDGE);
  expect(await brightness({ kind: 'line', gap: 0.15 }, UNDER_THE_EDGE)).toBeGreaterThan(none + 40);
});

test('a hazy film is paler than a clear one', async () => {
  const clear = await brightness({ kind: 'film', haze: 0 }, MIDDLE);
  expect(await brightness({ kind: 'film', haze: 0.7 }, MIDDLE)).toBeGreaterThan(clear + 20);
});

test('no two pictures are alike, and one is the same each time', async () => {
  const looks: PlateLook[] = [
    { kind: 'sheet', worn: 0 },
    { kind: 'sheet', worn: 0, sanded: true },
    { kind: 'ridges' },
    { kind: 'lifted', edge: 'front', amount: 0.4 },
    { kind: 'lifted', edge: 'right', amount: 0.4 },
  ];
  const all = await Promise.all(looks.map(async (look) => (await drawnPlate(look, SEED)).toString('base64')));
  expect(new Set(all).size).toBe(looks.length);
  expect((await drawnPlate(looks[0]!, SEED)).toString('base64')).toBe(all[0]);
  expect((await drawnPlate(looks[0]!, 'another')).toString('base64')).not.toBe(all[0]);
});
