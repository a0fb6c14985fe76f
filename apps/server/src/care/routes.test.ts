import fs from 'node:fs';
import path from 'node:path';
import type { Inspection, Photo } from '@even-bed/contract';
import sharp from 'sharp';
import type request from 'supertest';
import { newId, NOW, openShop, type Shop, sheet } from '../app/shop.fixture';
import { photoPath } from './photoFile';

let shop: Shop;
let surfaceId: string;
beforeEach(async () => {
  shop = await openShop();
  surfaceId = newId();
  await shop.api
    .put(`/api/surfaces/${surfaceId}`)
    .send(sheet({ tag: 'S-014' }))
    .expect(200);
});
afterEach(() => shop.close());

const send = (id: string, file: Buffer | string, type = 'image/jpeg', query = `surfaceId=${surfaceId}&at=${NOW}`) =>
  shop.api.put(`/api/photos/${id}?${query}`).set('Content-Type', type).set('Idempotency-Key', newId()).send(file);
/** A made-up picture: left half dark, right half light, so that it shows which way it is turned. */
async function picture(width: number, height: number, orientation?: number): Promise<Buffer> {
  const half = await sharp({ create: { width: width >> 1, height, channels: 3, background: '#111111' } })
    .png()
    .toBuffer();
  const image = sharp({ create: { width, height, channels: 3, background: '#eeeeee' } }).composite([
    { input: half, left: 0, top: 0 },
  ]);
  return (orientation ? image.withMetadata({ orientation }) : image).jpeg().toBuffer();
}
const bytes = (response: request.Response) => response.body as Buffer;
const files = () => (fs.existsSync(shop.photoFolder) ? fs.readdirSync(shop.photoFolder) : []);

describe('a photo', () => {
  test('is turned upright, made small, stripped, kept beside the database and served', async () => {
    const id = newId();
    const wide = await picture(2400, 1200, 6);
    const made = (await send(id, wide).expect(201)).body as Photo;
    // Orientation 6 (EXIF 2.3, tag 274): the camera was turned, so the upright photo is tall and dark at its top.
    expect(made).toMatchObject({ width: 800, height: 1600, surfaceId });
    const full = bytes(await shop.api.get(`/api/photos/${id}/file`).expect(200).expect('Content-Type', 'image/jpeg'));
    const { data, info } = await sharp(full).raw().toBuffer({ resolveWithObject: true });
    expect(data[info.channels * (10 * info.width + 400)]).toBeLessThan(60);
    expect(data[info.channels * (1590 * info.width + 400)]).toBeGreaterThan(200);
    expect((await sharp(full).metadata()).exif).toBeUndefined();
    const small = bytes(await shop.api.get(`/api/photos/${id}/file?size=small`).expect(200));
    expect(await sharp(small).metadata()).toMatchObject({ width: 160, height: 320 });
    expect(fs.statSync(photoPath(shop.photoFolder, id, 'full')).mode & 0o111).toBe(0);
    expect(files().sort()).toEqual([`${id}-small.jpg`, `${id}.jpg`]);
    await send(id, wide).expect(201);
    expect((await shop.api.get(`/api/photos?surfaceId=${surfaceId}`).expect(200)).body.items).toHaveLength(1);
  });

  test.each([
    ['an SVG with a script', '<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'],
    ['a page', '<!doctype html><script>alert(1)</script>'],
    ['a program', '\x7fELF\x02\x01\x01'],
    ['nothing', ' '],
    ['half a photo', Buffer.from('ffd8ffe000104a46494600010100', 'hex')],
  ])('%s that calls itself JPEG is refused by its content', async (_, file) => {
    expect((await send(newId(), Buffer.from(file)).expect(415)).body.error.code).toBe('no-photo');
    expect(files()).toEqual([]);
  });

  test('an SVG that says so, and a GIF, are refused; a PNG and a WebP are taken as JPEG', async () => {
    await send(newId(), '<svg/>', 'image/svg+xml').expect(415);
    const gif = await sharp(await picture(40, 40))
      .gif()
      .toBuffer();
    await send(newId(), gif).expect(415);
    for (const format of ['png', 'webp'] as const) {
      const id = newId();
      await send(
        id,
        await sharp(await picture(40, 40))
          .toFormat(format)
          .toBuffer(),
        `image/${format}`,
      ).expect(201);
      const kept = bytes(await shop.api.get(`/api/photos/${id}/file`).expect(200));
      expect((await sharp(kept).metadata()).format).toBe('jpeg');
    }
  });

  test('40 MB are too much, said before they are all read; so is a picture with more pixels than any camera’s', async () => {
    const { body } = await send(newId(), Buffer.alloc(40 * 1024 * 1024, 1)).expect(413);
    expect(body.error.message).toContain('20 MB');
    const huge = await sharp({ create: { width: 9000, height: 9000, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    expect((await send(newId(), huge, 'image/png').expect(415)).body.error.code).toBe('no-photo');
    expect(files()).toEqual([]);
  });

  test.each(['..%2F..%2Fetc%2Fpasswd', '..', '%2e%2e%2fx', 'a.jpg', `${newId()}%00.jpg`, `${newId().toUpperCase()}x`])(
    'a name like %s leads nowhere',
    async (name) => {
      for (const response of [await send(name, await picture(20, 20)), await shop.api.get(`/api/photos/${name}/file`)])
        expect([400, 404]).toContain(response.status);
      expect(files()).toEqual([]);
      expect(fs.existsSync(path.join(shop.photoFolder, '..', 'etc'))).toBe(false);
    },
  );

  test('shows something that is here, and is sent with a key', async () => {
    const photo = await picture(20, 20);
    await send(newId(), photo, 'image/jpeg', `at=${NOW}`).expect(422);
    await send(newId(), photo, 'image/jpeg', `surfaceId=${newId()}&at=${NOW}`).expect(422);
    await shop.api
      .put(`/api/photos/${newId()}?surfaceId=${surfaceId}&at=${NOW}`)
      .set('Content-Type', 'image/jpeg')
      .send(photo)
      .expect(400);
    await shop.api.get(`/api/photos/${newId()}/file`).expect(404);
    expect(() => photoPath('/x', '../y', 'full')).toThrow('id of a photo');
  });
});

describe('an inspection', () => {
  const seen = (more = {}) => ({
    surfaceId,
    machineId: null,
    card: 'light-line',
    code: 'faint',
    numbers: { feeler: 0.1 },
    note: '',
    at: NOW,
    ...more,
  });
  const put = (id: string, more = {}) => shop.api.put(`/api/inspections/${id}`).send(seen(more));

  test('is kept with its numbers and photos, and told in the book', async () => {
    const id = newId();
    await put(id).expect(200);
    await put(id).expect(200);
    const photo = newId();
    await send(
      photo,
      await picture(20, 20),
      'image/jpeg',
      `surfaceId=${surfaceId}&inspectionId=${id}&at=${NOW}`,
    ).expect(201);
    const { items } = (await shop.api.get(`/api/inspections?surfaceId=${surfaceId}`).expect(200)).body as {
      items: Inspection[];
    };
    expect(items).toMatchObject([
      { code: 'faint', numbers: { feeler: 0.1 }, photoIds: [photo], personName: 'Merle Quay' },
    ]);
    const book = (await shop.api.get('/api/book?kind=inspected').expect(200)).body.items;
    expect(book.map(({ text }: { text: string }) => text)).toEqual([
      'S-014: light under a straightedge: faint, thickest feeler that passes 0.1 mm.',
    ]);
  });

  test('a photo of a print is one of its machine too', async () => {
    const print = newId();
    const facts = { machineId: shop.machineId, endedAt: NOW, held: false, failure: 'let-go' };
    await shop.api.put(`/api/prints/${print}`).send(facts).expect(200);
    const photo = newId();
    const bytes = await picture(20, 20);
    await send(newId(), bytes, 'image/jpeg', `printId=${newId()}&at=${NOW}`).expect(422);
    await send(photo, bytes, 'image/jpeg', `printId=${print}&at=${NOW}`).expect(201);
    for (const of of [`printId=${print}`, `machineId=${shop.machineId}`]) {
      const { items } = (await shop.api.get(`/api/photos?${of}`).expect(200)).body as { items: Photo[] };
      expect(items).toMatchObject([{ id: photo, printId: print, machineId: shop.machineId }]);
    }
  });

  test.each([
    [{ code: 'bright' }, 'code'],
    [{ card: 'aura' }, 'card'],
    [{ numbers: { feeler: 12 } }, 'numbers.feeler'],
    [{ surfaceId: null }, ''],
    [{ surfaceId: newId() }, 'surfaceId'],
  ])('%j is refused at its field', async (more, field) => {
    const { body } = await put(newId(), more).expect(422);
    expect(Object.keys(body.error.fields)).toEqual([field]);
  });
});
