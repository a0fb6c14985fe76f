import type { MachineStack, MountAnswer, MountWrite, Surface, SurfaceWrite } from '@even-bed/contract';
import { facts, newId, NOW, openShop, sheet, type Shop } from '../app/shop.fixture';

const GLASS = '0b9d6a52-0f3e-4d0a-9a51-8c7f3f6d0004';
const BASE = '0b9d6a52-0f3e-4d0a-9a51-8c7f3f6d0007';
const FILM = '0b9d6a52-0f3e-4d0a-9a51-8c7f3f6d000a';
const HOUR = 3_600_000;

let shop: Shop;
beforeEach(async () => {
  shop = await openShop();
});
afterEach(() => shop.close());

const surface = (more: Partial<SurfaceWrite> = {}) => sheet({ place: 'Rack 1', ...more });
async function add(more: Partial<SurfaceWrite> = {}): Promise<Surface> {
  const { body } = await shop.api.put(`/api/surfaces/${newId()}`).send(surface(more)).expect(200);
  return body as Surface;
}
const mountOn = (machineId: string, write: Partial<MountWrite> & { surfaceId: string }) =>
  shop.api.post(`/api/machines/${machineId}/mount`).send({
    sideUp: 'A',
    turned: 0,
    answers: ['clean-dry', 'front-mark'],
    from: null,
    replaces: null,
    at: NOW,
    ...write,
  });
const event = (id: string, body: object) => shop.api.post(`/api/surfaces/${id}/events`).send({ at: NOW, ...body });
const get = async <T>(path: string) => (await shop.api.get(`/api${path}`).expect(200)).body as T;
async function addKind(more: object): Promise<string> {
  const id = newId();
  const kind = {
    group: 'sheet',
    thickness: 0.5,
    limit: 110,
    material: 'steel',
    directional: false,
    faces: [],
    life: null,
  };
  await shop.api
    .put(`/api/surface-kinds/${id}`)
    .send({ ...kind, care: {}, note: '', version: 0, at: NOW, ...more })
    .expect(200);
  return id;
}
async function secondMachine(): Promise<string> {
  const id = newId();
  await shop.api
    .put(`/api/machines/${id}`)
    .send({ ...facts(shop.areaId, { name: 'Knot' }), version: 0, at: NOW })
    .expect(200);
  return id;
}

test('a stack says who put a surface on and when, also after somebody else has turned it over', async () => {
  const { id } = await add();
  await mountOn(shop.machineId, { surfaceId: id, at: NOW }).expect(200);
  shop.clock.now = NOW + HOUR;
  const other = await shop.signedIn('technician', 'Otto');
  await other
    .post(`/api/surfaces/${id}/events`)
    .send({ kind: 'turned', sideUp: 'B', turned: 0, at: NOW + HOUR })
    .expect(200);
  const { layers } = await get<MachineStack>(`/machines/${shop.machineId}/stack`);
  expect(layers).toMatchObject([{ surfaceId: id, sideUp: 'B', fittedAt: NOW, fittedBy: shop.lead.name }]);
  // Taken off and put on again it was fitted anew.
  await other
    .post(`/api/surfaces/${id}/events`)
    .send({ kind: 'taken-off', place: 'Rack 1', at: NOW + HOUR })
    .expect(200);
  const answers = ['clean-dry', 'front-mark'];
  const write = { surfaceId: id, sideUp: 'A', turned: 0, answers, from: null, replaces: null, at: NOW + HOUR };
  await other.post(`/api/machines/${shop.machineId}/mount`).send(write).expect(200);
  const again = await get<MachineStack>(`/machines/${shop.machineId}/stack`);
  expect(again.layers).toMatchObject([{ fittedAt: NOW + HOUR, fittedBy: 'Otto' }]);
});

test('what fits a machine: its kind and size, not retired, not lying there already', async () => {
  const here = await add();
  await mountOn(shop.machineId, { surfaceId: here.id }).expect(200);
  const there = await add();
  await mountOn(await secondMachine(), { surfaceId: there.id }).expect(200);
  const [spare, base] = [await add(), await add({ kindId: BASE })];
  await add({ width: 310, depth: 310 });
  await add({ kindId: FILM });
  const retired = await add();
  await shop.api.post(`/api/surfaces/${retired.id}/retire`).send({ kind: 'retired', why: 'torn', at: NOW }).expect(200);
  const { items } = await get<{ items: Surface[] }>(`/surfaces?fits=${shop.machineId}`);
  expect(items.map(({ tag }) => tag)).toEqual([base.tag, there.tag, spare.tag]);
  await shop.api.get(`/api/surfaces?fits=${newId()}`).expect(404);
  // A film is as large as its vat, whatever the platform measures.
  const resin = newId();
  await shop.api
    .put(`/api/machines/${resin}`)
    .send({
      ...facts(shop.areaId, { name: 'Stilt', family: 'resin', plateWidth: 202, plateDepth: 130 }),
      version: 0,
      at: NOW,
    })
    .expect(200);
  const vat = await get<{ items: Surface[] }>(`/surfaces?fits=${resin}`);
  expect(vat.items.map(({ kindId }) => kindId)).toEqual([FILM]);
});

describe('adding', () => {
  test('gives the next free tag of the letter; a tag has one holder, machine or surface, whatever its capitals', async () => {
    expect((await add()).tag).toBe('S-001');
    expect((await add({ tag: 's-041' })).tag).toBe('S-041');
    expect((await add()).tag).toBe('S-042');
    expect((await add({ kindId: BASE })).tag).toBe('B-001');
    const taken = await shop.api
      .put(`/api/surfaces/${newId()}`)
      .send(surface({ tag: 'S-041' }))
      .expect(422);
    expect(taken.body.error.fields.tag).toContain('S-041');
    const machines = await shop.api
      .put(`/api/surfaces/${newId()}`)
      .send(surface({ tag: 'm-001' }))
      .expect(422);
    expect(machines.body.error.fields.tag).toContain('Dunlin');
    expect(await get('/tags/s-041')).toMatchObject({ kind: 'surface' });
    expect(await get('/tags/M-001')).toMatchObject({ kind: 'machine', id: shop.machineId });
    await shop.api.get('/api/tags/S-999').expect(404);
  });

  test.each([
    [{ width: 'wide' }, 'width'],
    [{ tag: 'fourteen' }, 'tag'],
    [{ kindId: newId() }, 'kindId'],
    [{ price: -1 }, 'price'],
  ])('%j is refused at its field', async (more, field) => {
    const { body } = await shop.api
      .put(`/api/surfaces/${newId()}`)
      .send({ ...surface(), ...more })
      .expect(422);
    expect(Object.keys(body.error.fields)).toEqual([field]);
  });

  test('changing facts never changes the state, and a stale change gets both versions', async () => {
    const made = await add();
    await mountOn(shop.machineId, { surfaceId: made.id }).expect(200);
    const changed = surface({ tag: made.tag, note: 'scratched', version: 1, place: 'elsewhere' });
    const { body } = await shop.api.put(`/api/surfaces/${made.id}`).send(changed).expect(200);
    expect(body).toMatchObject({ note: 'scratched', state: { where: { kind: 'machine' } } });
    const stale = await shop.api.put(`/api/surfaces/${made.id}`).send(changed).expect(409);
    expect(stale.body.current.note).toBe('scratched');
    const otherKind = { ...changed, kindId: BASE, version: 2 };
    await shop.api.put(`/api/surfaces/${made.id}`).send(otherKind).expect(422);
  });
});

describe('mounting', () => {
  test('asks first, puts on, and the stack shows it with who and when', async () => {
    const base = await add({ kindId: BASE });
    const sheet = await add({ thickness: 0.58 });
    await shop.api
      .put(`/api/machines/${shop.machineId}/stack`)
      .send({
        layers: [{ name: 'plate', under: 'base', thickness: '3', measured: true, limit: null }],
        version: 0,
        at: NOW,
      })
      .expect(200);
    await mountOn(shop.machineId, { surfaceId: base.id }).expect(200);
    const unanswered = await mountOn(shop.machineId, { surfaceId: sheet.id, answers: [] }).expect(422);
    expect(unanswered.body.error).toMatchObject({ code: 'unanswered', message: expect.stringContaining('dry') });
    await mountOn(shop.machineId, { surfaceId: sheet.id }).expect(200);
    const stack = await get<MachineStack>(`/machines/${shop.machineId}/stack`);
    expect(
      stack.layers.map(({ name, thickness, measured, fixed, fittedBy }) => [
        name,
        thickness,
        measured,
        fixed,
        fittedBy,
      ]),
    ).toEqual([
      ['plate', 3, true, true, 'Merle Quay'],
      ['Magnetic base', 1.2, false, true, 'Merle Quay'],
      ['Spring sheet, textured powder coat', 0.58, true, false, 'Merle Quay'],
    ]);
    expect((await get<{ items: { text: string }[] }>(`/book?surfaceId=${sheet.id}`)).items[0]!.text).toBe(
      'S-001 put on Dunlin, side A up (textured).',
    );
  });

  test('takes it off the other machine and puts away what lay here, in one go, once that was said', async () => {
    const knot = await secondMachine();
    const [one, two] = [await add(), await add()];
    await mountOn(shop.machineId, { surfaceId: one.id }).expect(200);
    await mountOn(knot, { surfaceId: two.id }).expect(200);
    const asked = await get<MountAnswer>(`/machines/${knot}/mount-check?surfaceId=${one.id}`);
    expect(asked).toMatchObject({ from: { machineName: 'Dunlin' }, replaces: { tag: two.tag } });
    const unsaid = await mountOn(knot, { surfaceId: one.id, replaces: { surfaceId: two.id, place: 'Rack 2' } }).expect(
      409,
    );
    expect(unsaid.body.error).toMatchObject({ code: 'elsewhere', message: expect.stringContaining('Dunlin') });
    expect((await mountOn(knot, { surfaceId: one.id, from: shop.machineId }).expect(409)).body.error.code).toBe(
      'occupied',
    );
    expect((await get<Surface>(`/surfaces/${one.id}`)).machineName).toBe('Dunlin');
    await mountOn(knot, {
      surfaceId: one.id,
      from: shop.machineId,
      replaces: { surfaceId: two.id, place: 'Rack 2' },
    }).expect(200);
    expect((await get<MachineStack>(`/machines/${shop.machineId}/stack`)).layers).toEqual([]);
    expect(await get<Surface>(`/surfaces/${two.id}`)).toMatchObject({
      state: { where: { kind: 'rack', place: 'Rack 2' } },
    });
    const lines = await get<{ items: { text: string }[] }>('/book?limit=3');
    expect(lines.items.map(({ text }) => text)).toEqual([
      'S-001 put on Knot, side A up (textured).',
      'S-001 taken off Dunlin, to the rack.',
      'S-002 taken off Knot, to Rack 2.',
    ]);
  });

  test('plain spring steel has no poles: it may lie any way on a base', async () => {
    const [base, sheet] = [await add({ kindId: BASE }), await add()];
    await mountOn(shop.machineId, { surfaceId: base.id }).expect(200);
    await mountOn(shop.machineId, { surfaceId: sheet.id, turned: 90 }).expect(200);
  });

  test('the side that goes up is the one that is asked about: smooth PEI welds, the bare side behind it does not', async () => {
    const kindId = await addKind({
      name: 'Two faces',
      sides: ['textured', 'smooth PEI'],
      faces: ['textured', 'smooth-pei'],
    });
    const sheet = await add({ kindId });
    const print = { machineId: shop.machineId, material: 'PETG', endedAt: NOW, duration: 3600, grams: 20, held: true };
    await shop.api
      .put(`/api/prints/${newId()}`)
      .send({ ...print, failure: null, release: null, note: '' })
      .expect(200);
    const about = async (side: 'A' | 'B') =>
      (
        await get<MountAnswer>(`/machines/${shop.machineId}/mount-check?surfaceId=${sheet.id}&sideUp=${side}`)
      ).cautions.filter((caution) => 'material' in caution && caution.material === 'PETG');
    expect(await about('A')).toEqual([]);
    expect(await about('B')).toMatchObject([{ because: expect.stringMatching(/welds to smooth PEI/) }]);
  });

  test('a magnetised cover is refused across the poles of a base, also when turned later; half a turn is fine', async () => {
    const base = await add({ kindId: BASE });
    const sheet = await add({
      kindId: await addKind({ name: 'Cover', group: 'cover', directional: true, sides: ['one', 'other'] }),
    });
    await mountOn(shop.machineId, { surfaceId: base.id }).expect(200);
    const crossed = await mountOn(shop.machineId, { surfaceId: sheet.id, turned: 90 }).expect(409);
    expect(crossed.body.error).toMatchObject({ code: 'poles', message: expect.stringContaining('ridges') });
    await mountOn(shop.machineId, { surfaceId: sheet.id }).expect(200);
    await event(sheet.id, { kind: 'turned', sideUp: 'B', turned: 270 }).expect(409);
    const { body } = await event(sheet.id, { kind: 'turned', sideUp: 'B', turned: 180 }).expect(200);
    expect(body.state.where).toMatchObject({ sideUp: 'B', turned: 180 });
  });

  test('glass on a mat, a film in a filament printer, side B of a one-sided surface', async () => {
    const [base, glass, film] = [
      await add({ kindId: BASE }),
      await add({ kindId: GLASS }),
      await add({ kindId: FILM }),
    ];
    await mountOn(shop.machineId, { surfaceId: base.id, sideUp: 'B' }).expect(422);
    await mountOn(shop.machineId, { surfaceId: base.id }).expect(200);
    expect((await mountOn(shop.machineId, { surfaceId: glass.id }).expect(409)).body.error.code).toBe('glass-on-mat');
    expect((await mountOn(shop.machineId, { surfaceId: film.id }).expect(409)).body.error.code).toBe('family');
    await mountOn(newId(), { surfaceId: glass.id }).expect(404);
  });
});

describe('holds', () => {
  test('count down by themselves, survive, stop mounting, and are cut with a reason', async () => {
    const sheet = await add();
    const hold = { kind: 'held', hold: 'cure', until: NOW + 24 * HOUR, reason: '24 h under weight' };
    await event(sheet.id, { ...hold, until: NOW }).expect(409);
    await event(sheet.id, hold).expect(200);
    const held = await get<{ items: Surface[] }>('/surfaces?state=on-hold');
    expect(held.items.map(({ tag }) => tag)).toEqual([sheet.tag]);
    expect((await mountOn(shop.machineId, { surfaceId: sheet.id }).expect(409)).body.error.code).toBe('on-hold');
    await event(sheet.id, { kind: 'hold-cut', reason: '' }).expect(422);
    shop.clock.now = NOW + 24 * HOUR;
    expect((await get<{ items: Surface[] }>('/surfaces?state=on-hold')).items).toEqual([]);
    await mountOn(shop.machineId, { surfaceId: sheet.id, at: shop.clock.now }).expect(200);
    await event(sheet.id, { kind: 'hold-cut', reason: 'x' }).expect(409);
  });
});

describe('the rack', () => {
  test('is searched by words, group, place and state, page by page', async () => {
    const base = await add({ kindId: BASE, place: 'Drawer 1' });
    for (let i = 0; i < 4; i++) await add({ place: i < 2 ? 'Rack 1' : 'Rack 2', note: i === 3 ? '50% worn' : '' });
    await mountOn(shop.machineId, { surfaceId: base.id }).expect(200);
    const tags = async (query: string) =>
      (await get<{ items: Surface[] }>(`/surfaces?${query}`)).items.map(({ tag }) => tag);
    expect(await tags('')).toEqual(['B-001', 'S-001', 'S-002', 'S-003', 'S-004']);
    expect(await tags('group=base')).toEqual(['B-001']);
    expect(await tags('place=Rack 2')).toEqual(['S-003', 'S-004']);
    expect(await tags('search=dunlin')).toEqual(['B-001']);
    expect(await tags('search=textured rack 1')).toEqual(['S-001', 'S-002']);
    expect(await tags('search=%25')).toEqual(['S-004']);
    expect(await tags('state=in-use')).toEqual(['B-001']);
    expect(await tags('state=in-rack')).toHaveLength(4);
    const page = await get<{ items: Surface[]; next: string }>('/surfaces?limit=2');
    expect(page.next).toBe('S-001');
    expect(await tags(`limit=2&after=${page.next}`)).toEqual(['S-002', 'S-003']);
    expect(await get('/places')).toEqual({ items: ['Rack 1', 'Rack 2'], next: null });
  });

  test('moves several at once, all or none', async () => {
    const list = [await add(), await add(), await add()];
    const ids = list.map(({ id }) => id);
    await mountOn(shop.machineId, { surfaceId: ids[2]! }).expect(200);
    await shop.api.post('/api/surfaces/move').send({ ids, place: 'Rack 9', at: NOW }).expect(409);
    expect((await get<Surface>(`/surfaces/${ids[0]}`)).state.where).toEqual({ kind: 'rack', place: 'Rack 1' });
    await shop.api
      .post('/api/surfaces/move')
      .send({ ids: ids.slice(0, 2), place: 'Rack 9', at: NOW })
      .expect(200);
    expect((await get<Surface>(`/surfaces/${ids[0]}`)).state.where).toEqual({ kind: 'rack', place: 'Rack 9' });
  });

  test('retiring takes it off its machine; a lead brings it back', async () => {
    const sheet = await add();
    await mountOn(shop.machineId, { surfaceId: sheet.id }).expect(200);
    const retire = { kind: 'retired', why: 'gouged', at: NOW };
    const technician = await shop.signedIn('technician');
    await technician.post(`/api/surfaces/${sheet.id}/retire`).send(retire).expect(403);
    await shop.api.post(`/api/surfaces/${sheet.id}/retire`).send(retire).expect(200);
    expect((await get<MachineStack>(`/machines/${shop.machineId}/stack`)).layers).toEqual([]);
    await event(sheet.id, { kind: 'moved', place: 'x' }).expect(409);
    // Retiring is no event that a technician can slip in.
    await event(sheet.id, { kind: 'brought-back', why: 'x', place: '' }).expect(422);
    await shop.api
      .post(`/api/surfaces/${sheet.id}/bring-back`)
      .send({ kind: 'brought-back', why: 'a mistake', place: 'Rack 1', at: NOW })
      .expect(200);
    expect((await get<Surface>(`/surfaces/${sheet.id}`)).state.retired).toBeNull();
  });
});

test('kinds are the shop’s own: added, changed, and kept what they are once used', async () => {
  const id = newId();
  const kind = {
    name: 'Spring sheet, house blend',
    group: 'sheet',
    thickness: '0,5',
    limit: 100,
    directional: true,
    sides: ['rough', 'smooth'],
    life: { unit: 'prints', expected: 200, spread: 50 },
    care: { acetone: 'no' },
    note: '',
    version: 0,
    at: NOW,
  };
  await shop.api.put(`/api/surface-kinds/${id}`).send(kind).expect(200);
  await shop.api.put(`/api/surface-kinds/${newId()}`).send(kind).expect(422);
  await shop.api
    .put(`/api/surface-kinds/${id}`)
    .send({ ...kind, care: { bleach: 'yes' }, version: 1 })
    .expect(422);
  const made = await add({ kindId: id });
  expect(made.kind).toMatchObject({ thickness: 0.5, sides: ['rough', 'smooth'] });
  const turned = await shop.api
    .put(`/api/surface-kinds/${id}`)
    .send({ ...kind, group: 'film', version: 1 })
    .expect(422);
  expect(turned.body.error.fields).toHaveProperty('group');
});

test('the stack of plain layers: kept when fitted, stale changes refused', async () => {
  const put = (layers: object[], version: number, at = NOW) =>
    shop.api.put(`/api/machines/${shop.machineId}/stack`).send({ layers, version, at });
  const plate = { name: 'plate', under: 'base', thickness: 3, measured: true, limit: null };
  await put([plate], 0).expect(200);
  const pad = { name: 'adhesive', under: 'base', thickness: 0.2, measured: false, limit: 90 };
  const { body } = await put([plate, pad], 1, NOW + HOUR).expect(200);
  expect(body.layers.map(({ fittedAt }: { fittedAt: number }) => fittedAt)).toEqual([NOW, NOW + HOUR]);
  await put([plate], 1).expect(409);
  await put([{ ...plate, thickness: -1 }], 2).expect(422);
});
