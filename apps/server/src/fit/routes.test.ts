import { inflateSync } from 'node:zlib';
import type { Plan, PlanWrite } from '@even-bed/contract';
import { PDFDocument, PDFRawStream } from 'pdf-lib';
import { facts, newId, NOW, openShop, type Shop } from '../app/shop.fixture';

let shop: Shop;
beforeEach(async () => {
  shop = await openShop();
});
afterEach(() => shop.close());

const underbed = {
  parts: [
    { name: 'belt clamp', height: 7.2 },
    { name: 'foam', height: 5.5 },
  ],
  springCompressed: 11.6,
  washers: 0,
  screw: 'M3',
  pitch: 0.5,
  backOff: 0,
  travel: null,
};
const plan = (more: Partial<PlanWrite> = {}) => ({
  machineId: shop.machineId,
  tool: 'underbed',
  title: 'Under the bed',
  input: underbed,
  at: NOW,
  ...more,
});
const keep = (id: string, body: unknown) => shop.api.put(`/api/plans/${id}`).send(body as object);

describe('a plan', () => {
  test('keeps what was asked, says what was answered, and stands in the book', async () => {
    const id = newId();
    await keep(id, plan()).expect(200);
    const kept = (await shop.api.get(`/api/plans/${id}`).expect(200)).body as Plan;
    expect(kept).toMatchObject({ tool: 'underbed', title: 'Under the bed', input: underbed });
    expect(kept.sentence).toBe(
      '1.1 mm too tall with the springs fully compressed. 3 × ISO 7089 M3 under each spring free it.',
    );
    const { body } = await shop.api.get('/api/book?kind=plan-kept').expect(200);
    expect(body.items[0].text).toContain('Dunlin, planned: Under the bed. 1.1 mm too tall');
  });

  test('two compared by counts or times: read with a comma, more held than tried refused at its field', async () => {
    const rule = { first: 'bare', second: 'glued', about: null, differs: [], each: '10', looks: 1 };
    const counts = (held: unknown) => ({
      ...rule,
      ...{
        reads: 'held',
        matters: '20',
        heldA: [{ held: '3', of: '10' }],
        heldB: [{ held, of: 10 }],
        a: [{ reading: 'x' }],
      },
    });
    const asked = (input: object, id = newId()) =>
      keep(id, plan({ tool: 'compare', input: input as PlanWrite['input'] }));
    const kept = async (input: object) => {
      const id = newId();
      await asked(input, id).expect(200);
      return (await shop.api.get(`/api/plans/${id}`).expect(200)).body as Plan;
    };
    const body = await kept(counts(10));
    expect(body.sentence).toBe('Glued held in 100 %, bare in 30 %: more than chance would. It ends here.');
    expect(body.input).toMatchObject({ a: [], b: [], heldB: [{ held: 10, of: 10 }] });
    const refused = await asked(counts(11)).expect(422);
    expect(refused.body.error.fields).toEqual({ 'input.heldB.0.held': 'More held than were tried: 10.' });
    const times = (minutes: unknown[]) => minutes.map((reading) => ({ reading }));
    const timed = await kept({
      ...rule,
      ...{ reads: 'time', matters: '5', each: 4, a: times(['12,5', 14, 13, 15]), b: times([31, 30.5, 29, 33]) },
    });
    expect(timed.sentence).toBe('With glued it takes 17.3 min more than with bare. It ends here.');
    // As it was kept before anything but lengths was read.
    const old = await kept({ ...rule, matters: 0.03, a: times([0.2, 0.21]), b: [] });
    expect(old.input).toMatchObject({ reads: 'length', heldA: [], heldB: [] });
  });

  test('reads in the units of today, in lists and in the book; one from before keeps its sentence', async () => {
    const [id, old] = [newId(), newId()];
    await keep(id, plan()).expect(200);
    await keep(old, plan({ title: 'Long ago' })).expect(200);
    await shop.db('plans').where({ id: old }).update({ answer: null, sentence: 'As it was said then: 1.1 mm.' });
    const { body: settings } = await shop.api.get('/api/settings').expect(200);
    await shop.api
      .put('/api/settings')
      .send({ ...settings, units: 'in', numbers: 'comma', at: NOW })
      .expect(200);
    const said = async (planId: string) => (await shop.api.get(`/api/plans/${planId}`).expect(200)).body.sentence;
    expect(await said(id)).toMatch(/^0,04331 in too tall/);
    expect(await said(old)).toBe('As it was said then: 1.1 mm.');
    const { body } = await shop.api.get('/api/book?kind=plan-kept').expect(200);
    expect(body.items[0].text).toContain('0,04331 in too tall');
  });

  test('an id that names another plan is refused, by its machine and by its tool', async () => {
    const id = newId();
    const other = newId();
    await keep(id, plan()).expect(200);
    await shop.api
      .put(`/api/machines/${other}`)
      .send({ ...facts(shop.areaId, { name: 'Knot' }), version: 0, at: NOW })
      .expect(200);
    expect((await keep(id, plan({ machineId: other })).expect(409)).body.error.code).toBe('id-taken');
    const spacer = { shape: 'pad', thickness: 3.175, layer: 0.2, width: 10, depth: 20, hole: 3.4 };
    const taken = await keep(id, plan({ tool: 'spacer', input: spacer as never })).expect(409);
    expect(taken.body.error.code).toBe('id-taken');
  });

  test('sent twice stands once; let go of twice is let go of once', async () => {
    const id = newId();
    await keep(id, plan()).expect(200);
    await keep(id, plan()).expect(200);
    const list = async () => (await shop.api.get(`/api/plans?machineId=${shop.machineId}`).expect(200)).body.items;
    expect(await list()).toHaveLength(1);
    for (let i = 0; i < 2; i++) await shop.api.post(`/api/plans/${id}/withdraw`).send({ at: NOW }).expect(200);
    expect(await list()).toEqual([]);
    const { body } = await shop.api.get('/api/book?kind=plan-withdrawn').expect(200);
    expect(body.items).toHaveLength(1);
    await shop.api.get(`/api/plans/${id}`).expect(404);
    await shop.api.post(`/api/plans/${newId()}/withdraw`).send({ at: NOW }).expect(404);
  });

  test('lengths and numbers are understood as they are typed', async () => {
    const id = newId();
    const typed = { ...underbed, springCompressed: '11,6', washers: '1/16 in', backOff: '1,5', pitch: '' };
    await keep(id, plan({ input: typed as never })).expect(200);
    const { input } = (await shop.api.get(`/api/plans/${id}`).expect(200)).body as Plan;
    expect(input).toMatchObject({ springCompressed: 11.6, washers: 1.5875, backOff: 1.5, pitch: null });
  });

  test.each([
    [{ springCompressed: 'tall' }, 'input.springCompressed'],
    [{ parts: [{ name: '', height: 1 }] }, 'input.parts.0.name'],
    [{ screw: 'M7' }, 'input.screw'],
    [{ backOff: -1 }, 'input.backOff'],
    [{ hidden: 1 }, 'input.hidden'],
  ])('%j is refused at its field, and nothing is kept', async (part, field) => {
    const { body } = await keep(newId(), plan({ input: { ...underbed, ...part } as never })).expect(422);
    expect(Object.keys(body.error.fields)).toEqual([field]);
    expect((await shop.api.get('/api/plans').expect(200)).body.items).toEqual([]);
  });

  test('a sum that can not be done is refused with its reason', async () => {
    const blanks = {
      sheet: { width: 100, depth: 100 },
      pieces: [{ name: '', width: 200, depth: 10, count: null, corners: 0 }],
      kerf: 0,
      trim: 0,
      method: 'snap',
      mayRotate: true,
      sheets: 1,
      price: null,
    };
    const { body } = await keep(newId(), plan({ tool: 'blanks', input: blanks as never })).expect(422);
    expect(body.error.fields.input).toMatch(/larger than what the sheet gives/);
  });

  test('an unknown machine is refused', async () => {
    await keep(newId(), plan({ machineId: newId() })).expect(422);
  });

  test.each([
    [
      'stack',
      {
        before: [],
        after: [{ name: 'glass', thickness: 3.175 }],
        finding: { by: 'spacer' },
        family: 'filament',
        moves: 'head',
        home: 'surface',
        adjusters: null,
        spacerLayer: 0.2,
        buildHeight: null,
        slack: null,
      },
      /\+3\.175 mm\. Before homing: put a spacer of 3\.2 mm \(16 layers\)/,
    ],
    [
      'stack',
      {
        before: [],
        after: [{ name: 'glass', thickness: 2 }],
        finding: { by: 'stop-screw', pitch: 0.5, clockwise: 'sooner' },
        family: 'filament',
        moves: 'head',
        home: 'surface',
        adjusters: null,
        spacerLayer: null,
        buildHeight: null,
        slack: null,
      },
      /4 turns clockwise/,
    ],
    [
      'top',
      {
        items: [{ name: 'clip', kind: 'clip', height: 2.5, beside: false }],
        base: 1.2,
        sheet: 2,
        plate: null,
        passes: [],
        travel: 0,
      },
      /1\.3 mm proud/,
    ],
    [
      'size',
      {
        plate: { width: 235, depth: 235 },
        print: { x: 5, y: 5, width: 225, depth: 225 },
        piece: { width: 250, depth: 235 },
        notches: [],
        keepOuts: [],
        pad: null,
      },
      /over the plate by up to 7\.5 mm/,
    ],
    [
      'blanks',
      {
        sheet: { width: 305, depth: 305 },
        pieces: [{ name: '', width: 133, depth: 159, count: null, corners: 0 }],
        kerf: 0,
        trim: 0,
        method: 'snap',
        mayRotate: true,
        sheets: 6,
        price: null,
      },
      /18 from 6 sheets, 3 from each, no edge-to-edge way gives more/,
    ],
    [
      'soak',
      {
        layers: [
          { material: 'aluminium', thickness: 3, dry: false },
          { material: 'glass', thickness: 4, dry: true },
        ],
        flux: 4000,
        setpoint: 60,
        ambient: 20,
        loss: 10,
        within: 2,
      },
      /within 2 °C of its .* after/,
    ],
    ['together', { face: 'smooth-pei', printed: 'petg' }, /No: It welds/],
    [
      'spacer',
      { shape: 'pad', thickness: 3.175, layer: 0.2, width: 10, depth: 20, hole: 3.4 },
      /A pad of 3\.2 mm, 16 layers/,
    ],
  ])('the tool %s can be kept too', async (tool, input, sentence) => {
    const id = newId();
    await keep(id, plan({ tool: tool as never, input: input as never })).expect(200);
    expect((await shop.api.get(`/api/plans/${id}`).expect(200)).body.sentence).toMatch(sentence);
  });
});

describe('blanks on paper', () => {
  const input = {
    sheet: { width: 305, depth: 300 },
    pieces: [{ name: '', width: 133, depth: 159, count: null, corners: 8 }],
    kerf: 0,
    trim: 0,
    method: 'snap',
    mayRotate: true,
    sheets: 1,
    price: null,
  };
  const print = async (paper: string) => {
    const { body } = await shop.api
      .post('/api/blanks/pdf')
      .send({ input, paper })
      .expect(200)
      .expect('Content-Type', 'application/pdf');
    return PDFDocument.load(body as Buffer);
  };
  const MM = 72 / 25.4;

  test('one large page holds the sheet and its margins, to a tenth of a millimetre', async () => {
    const [page] = (await print('whole')).getPages();
    expect(page!.getWidth() / MM).toBeCloseTo(305 + 20, 1);
    expect(page!.getHeight() / MM).toBeCloseTo(300 + 20 + 22, 1);
  });

  test('A4 takes four pages, and on each the check line is 100 mm', async () => {
    const pdf = await print('a4');
    const pages = pdf.getPages();
    expect(pages).toHaveLength(4);
    for (const page of pages) {
      expect(page.getWidth() / MM).toBeCloseTo(210, 1);
      expect(page.getHeight() / MM).toBeCloseTo(297, 1);
    }
    const drawn = pdf.context
      .enumerateIndirectObjects()
      .flatMap(([, object]) => (object instanceof PDFRawStream ? [object] : []))
      .flatMap(({ contents }) => {
        try {
          return [inflateSync(contents).toString('latin1')];
        } catch {
          return [];
        }
      })
      .join('\n');
    const lines = [...drawn.matchAll(/([\d.]+) ([\d.]+) m\n([\d.]+) ([\d.]+) l\nS/g)].filter(([, , y, , v]) => y === v);
    const lengths = lines.map(([, x, , u]) => (Number(u) - Number(x)) / MM);
    expect(lengths).toHaveLength(4);
    for (const length of lengths) expect(length).toBeCloseTo(100, 2);
    // The drawing itself is scaled by points per millimetre and by nothing else.
    const scales = [...drawn.matchAll(/([\d.]+) 0 0 \1 0 0 cm/g)].map(([, scale]) => Number(scale));
    for (const scale of scales) expect(scale).toBeCloseTo(MM, 4);
    expect(scales).toHaveLength(4);
    // What to mind stands on each page, in the bold face.
    expect([...drawn.matchAll(/\/F\d+ 8 Tf/g)]).toHaveLength(4);
  });

  test('what can not be cut, or not be printed, is refused', async () => {
    await shop.api
      .post('/api/blanks/pdf')
      .send({ input: { ...input, pieces: [] }, paper: 'a4' })
      .expect(422);
    const huge = { ...input, sheet: { width: 4000, depth: 4000 } };
    const { body } = await shop.api.post('/api/blanks/pdf').send({ input: huge, paper: 'a4' }).expect(422);
    expect(body.error.fields.paper).toMatch(/one large page/);
  });
});
