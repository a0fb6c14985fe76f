import jsQR from 'jsqr';
import { PDFDocument } from 'pdf-lib';
import { newId, NOW, openShop, type Shop, sheet } from '../app/shop.fixture';
import { codeCells, tagAddress } from './labelsPdf';

/** Paints a code as a camera would see it, black on white with its quiet zone, and reads it with another library. */
function readBack(text: string): string | undefined {
  const { size, dark } = codeCells(text);
  const scale = 4;
  const side = (size + 8) * scale;
  const pixels = new Uint8ClampedArray(side * side * 4).fill(255);
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const [row, column] = [Math.floor(y / scale) - 4, Math.floor(x / scale) - 4];
      const inside = row >= 0 && column >= 0 && row < size && column < size;
      if (inside && dark(row, column)) pixels.fill(0, (y * side + x) * 4, (y * side + x) * 4 + 3);
    }
  return jsQR(pixels, side, side)?.data;
}

test.each(['http://localhost:4242', 'http://192.168.1.20:4242/', 'https://bench.saltmarsh.example'])(
  'the code of a tag under %s is read back by another library',
  (origin) => {
    const address = tagAddress(origin, 'S-014');
    expect(address).toMatch(/[^/]\/t\/S-014$/);
    expect(readBack(address)).toBe(address);
  },
);

describe('labels', () => {
  let shop: Shop;
  beforeEach(async () => {
    shop = await openShop({ name: 'Dunlin – Łódź' });
    for (const tag of ['S-014', 'S-015'])
      await shop.api.put(`/api/surfaces/${newId()}`).send(sheet({ tag })).expect(200);
  });
  afterEach(() => shop.close());
  const get = (query: string) => shop.api.get(`/api/labels?${query}`);

  test('come as a PDF of the sheet’s size, as many pages as are needed', async () => {
    const { body } = await get('sheet=a4-70x37&tags=S-014,s-015,M-001&cells=22,23')
      .expect(200)
      .expect('Content-Type', /pdf/);
    const pdf = await PDFDocument.load(body as Buffer);
    expect(pdf.getPageCount()).toBe(2);
    // ISO 216: A4 is 210 × 297 mm; a point is 1/72 in.
    const { width, height } = pdf.getPage(0).getSize();
    expect([(width / 72) * 25.4, (height / 72) * 25.4]).toEqual([expect.closeTo(210, 3), expect.closeTo(297, 3)]);
    const roll = await PDFDocument.load((await get('sheet=roll-62x29&tags=S-014,S-015').expect(200)).body as Buffer);
    expect(roll.getPageCount()).toBe(2);
  });

  test.each([
    ['sheet=a4-70x37&tags=S-999', 422, 'tags'],
    ['sheet=a4-70x37&tags=S-014&cells=24', 422, 'cells'],
    ['sheet=a5&tags=S-014', 400, 'sheet'],
    ['sheet=a4-70x37&tags=S-014;x', 400, 'tags'],
  ])('%s is refused', async (query, status, field) => {
    const { body } = await get(query).expect(status);
    expect(Object.keys(body.error.fields)).toEqual([field]);
  });
});

describe('offsets', () => {
  let shop: Shop;
  beforeEach(async () => {
    shop = await openShop();
  });
  afterEach(() => shop.close());

  test('that worked tell the pair never tried, with what it rests on; a withdrawn one no longer counts', async () => {
    const machines = [shop.machineId, newId()];
    const { body: first } = await shop.api.get(`/api/machines/${machines[0]}`).expect(200);
    const { name, areaId, shelf, model, family, plateWidth, plateDepth, printWidth, printDepth, originX, originY } =
      first;
    const { adjusters, seenFrom, compensation, firstLayer, aim, finding, plus, mapExtent, mapFirstRow, console, note } =
      first;
    const facts = {
      areaId,
      shelf,
      model,
      family,
      plateWidth,
      plateDepth,
      printWidth,
      printDepth,
      originX,
      originY,
      adjusters,
    };
    const more = { seenFrom, compensation, firstLayer, aim, finding, plus, mapExtent, mapFirstRow, console, note };
    await shop.api
      .put(`/api/machines/${machines[1]}`)
      .send({ ...facts, ...more, name: `${name} 2`, version: 0, at: NOW })
      .expect(200);
    const surfaces = [newId(), newId()];
    for (const id of surfaces) await shop.api.put(`/api/surfaces/${id}`).send(sheet()).expect(200);
    const keep = async (machineId: string, surfaceId: string, offset: string) => {
      const id = newId();
      await shop.api.put(`/api/offsets/${id}`).send({ machineId, surfaceId, offset, at: NOW }).expect(200);
      return id;
    };
    const predict = async () =>
      (await shop.api.get(`/api/offset-prediction?machineId=${machines[0]}&surfaceId=${surfaces[1]}`).expect(200)).body
        .prediction;
    expect(await predict()).toBeNull();
    await keep(machines[0]!, surfaces[0]!, '-1,25');
    await keep(machines[1]!, surfaces[0]!, '-1.10');
    const last = await keep(machines[1]!, surfaces[1]!, '-1.30');
    expect(await predict()).toEqual({
      offset: expect.closeTo(-1.45, 12),
      deviation: null,
      spare: 0,
      likely: null,
      nearlySure: null,
      odd: [],
      support: { offsets: 3, sameSurface: 1, sameMachine: 1 },
    });
    await shop.api.post(`/api/offsets/${last}/withdraw`).send({}).expect(200);
    expect(await predict()).toBeNull();
    const bad = { machineId: machines[0], surfaceId: surfaces[0], offset: 'low', at: NOW };
    expect((await shop.api.put(`/api/offsets/${newId()}`).send(bad).expect(422)).body.error.fields).toHaveProperty(
      'offset',
    );
    expect((await shop.api.get(`/api/offsets?machineId=${machines[1]}`).expect(200)).body.items).toHaveLength(1);
  });
});
