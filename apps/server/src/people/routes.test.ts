import request from 'supertest';
import { newId, NOW, openShop, type Shop } from '../app/shop.fixture';
import { hashSecret, isHash, secretMatches } from './secrets';

let shop: Shop;
beforeEach(async () => {
  shop = await openShop();
});
afterEach(() => shop.close());

const MINUTE = 60_000;
const person = (more = {}) => ({
  name: 'Ina Fen',
  role: 'technician',
  active: true,
  secret: '482915',
  version: 0,
  at: NOW,
  ...more,
});
const signIn = (secret: string, name = 'Ina Fen') => shop.device().post('/api/session').send({ name, secret });

describe('secrets', () => {
  // RFC 7914 §12, second test vector (from memory): "password", "NaCl", N = 1024, r = 8, p = 16.
  test('are hashed with scrypt as published', async () => {
    const salt = Buffer.from('NaCl').toString('base64url');
    const key = Buffer.from('fdbabe1c9d3472007856e7190d01e9fe7c6ad7cbc8237830e77376634b373162', 'hex').toString(
      'base64url',
    );
    expect(await secretMatches('password', `scrypt$10$8$16$${salt}$${key}`)).toBe(true);
    expect(await secretMatches('passwore', `scrypt$10$8$16$${salt}$${key}`)).toBe(false);
  });

  test('never give the same hash twice, and match whatever way their letters are composed', async () => {
    const cost = { log2N: 4, r: 1, p: 1 };
    const [one, two] = [await hashSecret('cafe\u0301 au lait', cost), await hashSecret('cafe\u0301 au lait', cost)];
    expect(one).not.toBe(two);
    expect(await secretMatches('caf\u00e9 au lait', one)).toBe(true);
    expect(await secretMatches('x', 'nonsense')).toBe(false);
  });

  test.each(['20$8$64', '4$1$1e9', 'NaN$8$1', '-1$8$1', '15$0$3', '15$8$0.5', 'Infinity$1$1'])(
    'a stored cost of %s is none that is ever worked off',
    async (cost) => {
      const began = performance.now();
      const key = Buffer.alloc(32).toString('base64url');
      expect(await secretMatches('password', `scrypt$${cost}$TmFDbA$${key}`)).toBe(false);
      expect(performance.now() - began).toBeLessThan(100);
    },
  );

  test('what this program hashes itself can be looked at', async () => {
    expect(isHash(await hashSecret('tide and tern 7'))).toBe(true);
  });
});

describe('the first account', () => {
  test('is made once', async () => {
    await shop
      .device()
      .post('/api/people/first')
      .send({ ...shop.lead, id: newId(), name: 'Second' })
      .expect(409);
    const { body } = await shop.api.get('/api/session').expect(200);
    expect(body).toMatchObject({ state: 'signed-in', person: { name: 'Merle Quay', role: 'lead' }, demo: null });
  });

  test('its cookie is out of the reach of scripts and of other sites', async () => {
    const { headers } = await request(shop.app.callback())
      .post('/api/session')
      .send({ name: 'merle quay', secret: shop.lead.secret })
      .expect(200);
    expect(headers['set-cookie']![0]).toMatch(/^even-bed-session=[\w-]{43};.*path=\/;.*samesite=strict;.*httponly/i);
  });
});

describe('signing in', () => {
  beforeEach(() => shop.api.put(`/api/people/${newId()}`).send(person()).expect(200));

  test('a wrong secret and an unknown name get the same answer', async () => {
    const wrong = await signIn('999999').expect(401);
    const unknown = await signIn('999999', 'Nobody').expect(401);
    expect(unknown.body).toEqual(wrong.body);
  });

  test('guessing is slowed after three tries and locked after ten; a lead lets in again', async () => {
    const answers: number[] = [];
    for (let i = 0; i < 4; i++) answers.push((await signIn('111112')).status);
    expect(answers).toEqual([401, 401, 401, 401]);
    // The right secret doesn't help while the name is slowed: a guesser learns nothing.
    expect((await signIn('482915').expect(429)).body.error.message).toContain('2 seconds');
    let waited = 0;
    for (let tries = 5; tries <= 10; tries++) {
      shop.clock.now += 200_000;
      waited += 200_000;
      await signIn('111112').expect(401);
    }
    expect((await signIn('482915').expect(429)).body.error.message).toContain('15 minutes');
    const { body } = await shop.api.get('/api/people').expect(200);
    const ina = body.items.find(({ name }: { name: string }) => name === 'Ina Fen');
    expect(ina.lockedUntil).toBe(NOW + waited + 15 * MINUTE);
    await shop.api.post(`/api/people/${ina.id}/unlock`).send({}).expect(200);
    await signIn('482915').expect(200);
  });

  test('a right secret forgets the wrong tries before it', async () => {
    for (let i = 0; i < 3; i++) await signIn('111112').expect(401);
    await signIn('482915').expect(200);
    for (let i = 0; i < 3; i++) await signIn('111112').expect(401);
    await signIn('482915').expect(200);
  });

  test('secrets that are too short or plain are refused at their field', async () => {
    for (const secret of ['12345', '123456', '987654', '000000', 'short']) {
      const { body } = await shop.api
        .put(`/api/people/${newId()}`)
        .send(person({ name: 'Other', secret }))
        .expect(422);
      expect(Object.keys(body.error.fields)).toEqual(['secret']);
    }
  });

  test('no secret, hashed or not, leaves the server or stays in the record of writes', async () => {
    const { text } = await shop.api.get('/api/people').expect(200);
    expect(text).not.toMatch(/scrypt|482915/);
    const kept = JSON.stringify([await shop.db('writes'), await shop.db('book')]);
    expect(kept).not.toMatch(/scrypt|482915|a long evening/);
  });
});

describe('sessions', () => {
  test('are listed and revoked; a new secret signs every other device out', async () => {
    const phone = await shop.signedIn('technician');
    const tablet = shop.device();
    await tablet.post('/api/session').send({ name: 'technician one', secret: 'technician one at work' }).expect(200);
    const { body } = await phone.get('/api/sessions').expect(200);
    expect(body.items.map(({ current }: { current: boolean }) => current).sort()).toEqual([false, true]);
    const other = body.items.find(({ current }: { current: boolean }) => !current);
    await phone.post(`/api/sessions/${other.id}/end`).send({}).expect(200);
    await tablet.get('/api/machines').expect(401);
    await tablet.post('/api/session').send({ name: 'technician one', secret: 'technician one at work' }).expect(200);
    await phone.post('/api/session/secret').send({ current: 'wrong', secret: 'a new one now' }).expect(422);
    await phone
      .post('/api/session/secret')
      .send({ current: 'technician one at work', secret: 'a new one now' })
      .expect(200);
    await phone.get('/api/machines').expect(200);
    await tablet.get('/api/machines').expect(401);
  });

  test('nobody ends somebody else’s, but a lead does', async () => {
    const one = await shop.signedIn('technician', 'one');
    const two = await shop.signedIn('looker', 'two');
    const { body } = await one.get('/api/sessions').expect(200);
    await two.post(`/api/sessions/${body.items[0].id}/end`).send({}).expect(404);
    await shop.api.post(`/api/sessions/${body.items[0].id}/end`).send({}).expect(200);
    await one.get('/api/machines').expect(401);
  });

  test('a shared device locks: when told, and by itself after the shop’s minutes; a switch of person opens it', async () => {
    await shop.signedIn('technician', 'one');
    const shared = shop.device();
    const enter = (name: string) =>
      shared
        .post('/api/session')
        .send({ name, secret: `${name} at work`, shared: true })
        .expect(200);
    await enter('one');
    shop.clock.now += 4 * MINUTE;
    await shared.get('/api/machines').expect(200);
    shop.clock.now += 5 * MINUTE + 1;
    expect((await shared.get('/api/machines').expect(401)).body.error.code).toBe('locked');
    expect((await shared.get('/api/session').expect(200)).body).toMatchObject({
      state: 'locked',
      person: { name: 'one' },
    });
    await shop.signedIn('looker', 'two');
    await enter('two');
    await shared.get('/api/machines').expect(200);
    await shared.post('/api/session/lock').send({}).expect(200);
    await shared.get('/api/machines').expect(401);
    await enter('one');
    shop.clock.now += 20 * MINUTE;
    await shared.get('/api/machines').expect(401);
    // A clock that goes back opens nothing again.
    shop.clock.now -= 18 * MINUTE;
    await shared.get('/api/machines').expect(401);
    shop.clock.now += 18 * MINUTE;
    await enter('one');
    await shared.post('/api/session/end').send({}).expect(200);
    expect((await shared.get('/api/session')).body.state).toBe('signed-out');
  });

  test('one’s own device does not lock by itself, but ends after a month without use', async () => {
    const own = await shop.signedIn('technician');
    shop.clock.now += 29 * 1440 * MINUTE;
    await own.get('/api/machines').expect(200);
    shop.clock.now += 31 * 1440 * MINUTE;
    await own.get('/api/machines').expect(401);
  });
});

describe('people', () => {
  test('the last lead stays one; whoever leaves is signed out and can’t come back in', async () => {
    const { body } = await shop.api.get('/api/people').expect(200);
    const change = (more: object) =>
      shop.api
        .put(`/api/people/${shop.lead.id}`)
        .send({ name: 'Merle Quay', role: 'lead', active: true, version: body.items[0].version, at: NOW, ...more });
    expect((await change({ role: 'looker' }).expect(422)).body.error.fields).toHaveProperty('role');
    expect((await change({ active: false }).expect(422)).body.error.fields).toHaveProperty('role');
    const other = await shop.signedIn('lead', 'Second');
    await change({ active: false }).expect(200);
    await shop.api.get('/api/machines').expect(401);
    await signIn(shop.lead.secret, 'Merle Quay').expect(401);
    await other.get('/api/machines').expect(200);
  });

  test.each(['\0', '\u200B', '\u200E\u200F', '\u202E', 'Ina\u202E neF', 'Ina\nFen', '\u2060', '   ', 'Ina\u0007'])(
    'a name like %j is refused at its field',
    async (name) => {
      const { body } = await shop.api.put(`/api/people/${newId()}`).send(person({ name })).expect(422);
      expect(Object.keys(body.error.fields)).toEqual(['name']);
      expect(body.error.fields.name).toMatch(/seen|empty/);
    },
  );

  test('two people can’t have one name, however it is written; a stale change gets both versions', async () => {
    await shop.api.put(`/api/people/${newId()}`).send(person()).expect(200);
    const again = await shop.api
      .put(`/api/people/${newId()}`)
      .send(person({ name: 'ina\u200B fen' }))
      .expect(422);
    expect(again.body.error.fields.name).toContain('Ina Fen');
    await shop.api
      .put(`/api/people/${shop.lead.id}`)
      .send(person({ version: 0 }))
      .expect(409);
  });

  test('every line of the book says who', async () => {
    const two = await shop.signedIn('technician', 'two');
    await two.put(`/api/areas/${newId()}`).send({ name: 'Loft', position: 1, version: 0, at: NOW }).expect(200);
    const { body } = await shop.api.get('/api/book?limit=1').expect(200);
    expect(body.items[0]).toMatchObject({ text: 'Area Loft added.', personName: 'two' });
    const byLead = await shop.api.get(`/api/book?personId=${shop.lead.id}`).expect(200);
    expect(byLead.body.items.every(({ personName }: { personName: string }) => personName === 'Merle Quay')).toBe(true);
  });
});

describe('a looker’s hand-made requests', () => {
  test('can’t write, whatever they carry', async () => {
    const looker = await shop.signedIn('looker');
    const area = { name: 'Loft', position: 1, version: 0, at: NOW };
    for (const headers of [
      {},
      { 'X-Role': 'lead' },
      { 'Sec-Fetch-Site': 'same-origin' },
      { 'X-HTTP-Method-Override': 'GET' },
    ])
      await looker.put(`/api/areas/${newId()}`).set(headers).send(area).expect(403);
    await looker.get('/api/areas').send(area).expect(200);
    expect(await shop.db('areas')).toHaveLength(1);
  });

  test('a page of another site can’t use a session', async () => {
    const area = { name: 'Loft', position: 1, version: 0, at: NOW };
    const put = () => shop.api.put(`/api/areas/${newId()}`);
    await put().set('Sec-Fetch-Site', 'cross-site').send(area).expect(403);
    await put().set('Sec-Fetch-Site', 'same-site').send(area).expect(403);
    await put().set('Origin', 'http://elsewhere.example').send(area).expect(403);
    await put().type('form').send('name=Loft').expect(415);
    await put().type('text/plain').send(JSON.stringify(area)).expect(415);
  });
});

describe('tokens of machines', () => {
  test('are shown once, kept hashed, good for their machine’s readings alone, and revocable', async () => {
    const id = newId();
    const path = `/api/machines/${shop.machineId}/tokens`;
    const made = await shop.api.put(`${path}/${id}`).send({ name: 'Controller', at: NOW }).expect(201);
    const { token } = made.body as { token: string };
    expect(token).toMatch(/^eb_[\w-]{43}$/);
    await shop.api.put(`${path}/${id}`).send({ name: 'Controller', at: NOW }).expect(409);
    expect((await shop.api.get(path).expect(200)).text).not.toContain(token);
    expect(JSON.stringify(await shop.db('machine_tokens'))).not.toContain(token);
    const machine = request.agent(shop.app.callback()).set('Authorization', `Bearer ${token}`);
    await machine.put(`/api/level-checks/${newId()}`).send(shop.start()).expect(200);
    await machine.get('/api/machines').expect(403);
    const other = { ...shop.start(), machineId: newId() };
    expect((await machine.put(`/api/level-checks/${newId()}`).send(other).expect(403)).body.error.code).toBe(
      'other-machine',
    );
    // It reads its own machine, and no other.
    await machine.get(`/api/machines/${shop.machineId}`).expect(200);
    await machine.get(`/api/machines/${newId()}`).expect(403);
    await machine.get('/api/machines').expect(403);
    await shop.api.post(`/api/tokens/${id}/revoke`).send({}).expect(200);
    await machine.put(`/api/level-checks/${newId()}`).send(shop.start()).expect(401);
  });
});

describe('settings', () => {
  const settings = {
    name: 'Hall',
    units: 'in',
    zone: 'Europe/Lisbon',
    numbers: 'comma',
    lockMinutes: 10,
    address: '',
    version: 0,
    at: NOW,
  };

  test('are read by all and changed by leads', async () => {
    await shop.api.put('/api/settings').send(settings).expect(200);
    const looker = await shop.signedIn('looker');
    expect((await looker.get('/api/settings').expect(200)).body).toMatchObject({ units: 'in', version: 1 });
    await looker
      .put('/api/settings')
      .send({ ...settings, version: 1 })
      .expect(403);
    await shop.api.put('/api/settings').send(settings).expect(409);
  });

  test.each([
    ['zone', 'Marsh/Salt'],
    ['lockMinutes', 0],
    ['units', 'cubits'],
    ['address', 'javascript:alert(1)'],
  ])('%s can’t be %s', async (field, value) => {
    const { body } = await shop.api
      .put('/api/settings')
      .send({ ...settings, [field]: value })
      .expect(422);
    expect(Object.keys(body.error.fields)).toEqual([field]);
  });
});

describe('the chain of the book', () => {
  const check = async () => (await shop.api.get('/api/book/check').expect(200)).body;
  const openBook = async () => {
    await shop.db.raw('DROP TRIGGER book_no_update');
    await shop.db.raw('DROP TRIGGER book_no_delete');
  };

  test('holds, and shows a changed, a missing, a moved and a slipped-in line', async () => {
    expect(await check()).toMatchObject({ entries: 3, sound: true, fault: null });
    await openBook();
    const { data } = (await shop.db('book').where({ seq: 2 }).first()) as { data: string };
    await shop
      .db('book')
      .where({ seq: 2 })
      .update({ data: data.replace('Long Room', 'Loft') });
    expect((await check()).fault).toEqual({ seq: 2, reason: 'what it says is not what was written' });
    await shop.db('book').where({ seq: 2 }).update({ data, text: 'Area Loft added.' });
    expect((await check()).sound).toBe(false);
    await shop.db('book').where({ seq: 2 }).update({ text: '' });
    expect((await check()).sound).toBe(true);
    await shop.db('book').where({ seq: 2 }).update({ person_id: null });
    expect((await check()).fault.seq).toBe(2);
    await shop.db('book').where({ seq: 2 }).delete();
    expect((await check()).fault).toEqual({ seq: 3, reason: 'line 2 is missing' });
    await shop.db('book').where({ seq: 3 }).update({ seq: 2 });
    expect((await check()).fault).toEqual({ seq: 2, reason: 'it does not carry the hash of the line before' });
  });

  test('a correction is a new line that names the old one', async () => {
    const { body } = await shop.api.get('/api/book?kind=area-added').expect(200);
    const [old] = body.items;
    await shop.api
      .post('/api/book/corrections')
      .send({ corrects: old.id, text: 'It is the Loft.', at: NOW })
      .expect(201);
    const after = (await shop.api.get(`/api/book/${old.id}`).expect(200)).body;
    const correction = (await shop.api.get(`/api/book/${after.correctedBy}`).expect(200)).body;
    expect(correction).toMatchObject({ kind: 'correction', text: 'Correction: It is the Loft.', corrects: old.id });
    expect(after.text).toBe(old.text);
    await shop.api.post('/api/book/corrections').send({ corrects: newId(), text: 'x', at: NOW }).expect(404);
    expect((await check()).sound).toBe(true);
  });
});
