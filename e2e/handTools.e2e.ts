import type { LevelNote, MachineOverview, MachineZero, Plan } from '@even-bed/contract';
import { lookingDown } from '@even-bed/core/level/seenFrom';
import { SKIRT_SIDES, skirtTrim, type LineLook, type SkirtRound, type SkirtSide } from '@even-bed/core/level/skirtTrim';
import { stiffBed } from '@even-bed/core/level/stiffBed';
import { beginCheck, choose, eventually, listen, PHONE, tap, rested, TestShop, unfold } from './shop';

let shop: TestShop;
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
});
afterAll(() => shop.close());

const bookSays = (words: string) =>
  eventually(async () => {
    const { items } = await shop.get<{ items: { text: string }[] }>(`/book?search=${encodeURIComponent(words)}`);
    expect(items.length).toBeGreaterThan(0);
    return items[0]!.text;
  });

test('a skirt is trimmed side by side, look by look, to touching; it is kept as one level of the machine', async () => {
  const { items } = await shop.get<{ items: MachineOverview[] }>('/machines');
  const machine = items.find(({ name }) => name === 'Dunlin')!;
  const adjusters = lookingDown(machine.adjusters, machine.seenFrom);
  const print = { x: 0, y: 0, width: machine.printWidth, depth: machine.printDepth };
  // A bed whose front is low by half a tenth: what its lines look like follows from what is done.
  let plane = { a: 0, b: -0.05 / (machine.printDepth / 2), c: 0.05 };
  const middles: Record<SkirtSide, [number, number]> = {
    front: [print.width / 2, 0],
    right: [print.width, print.depth / 2],
    rear: [print.width / 2, print.depth],
    left: [0, print.depth / 2],
  };
  const lookOf = (side: SkirtSide): LineLook => {
    const [x, y] = middles[side];
    const gap = plane.a * x + plane.b * y + plane.c;
    return gap > 0.025 ? 'gaps' : gap > -0.025 ? 'touching' : gap > -0.075 ? 'ridged' : 'dragged';
  };
  const page = await shop.page(PHONE, { as: 'technician' });
  const said = await listen(page);
  await page.goto(`/floor/${machine.id}`);
  await unfold(page, 'level-glance');
  await page.getByTestId('to-skirt').click();
  await page.getByTestId('skirt-plan').waitFor();
  expect(await page.getByText(/Hands clear of belts/).count()).toBe(1);
  const rounds: SkirtRound[] = [];
  for (let round = 0; ; round++) {
    expect(round).toBeLessThan(13);
    const looks = Object.fromEntries(SKIRT_SIDES.map((side) => [side, lookOf(side)])) as Record<SkirtSide, LineLook>;
    for (const side of SKIRT_SIDES) await tap(page, `look-${looks[side]}`);
    rounds.push({ looks, made: null });
    const advice = skirtTrim({ adjusters, print, rounds });
    if (advice.do === 'done') break;
    if (advice.do === 'level') throw new Error('it is no trim');
    expect(await page.getByTestId('skirt-title').innerText()).toMatch(
      advice.do === 'turn' ? /a sixteenth turn (anti)?clockwise, looking/ : /^Offset \d/,
    );
    rounds[round] = {
      looks,
      made:
        advice.do === 'turn'
          ? { do: 'turn', adjuster: advice.adjuster, turns: advice.turns }
          : { do: 'offset', by: advice.by },
    };
    if (advice.do === 'offset') plane = { ...plane, c: plane.c + advice.by };
    else {
      const rises = adjusters.map(({ id, pitch, clockwise }) =>
        id === advice.adjuster ? advice.turns * pitch * (clockwise === 'raises' ? 1 : -1) : 0,
      );
      const { a, b, c } = stiffBed(adjusters)(rises);
      plane = { a: plane.a - a, b: plane.b - b, c: plane.c - c };
    }
    if (round === 0) {
      await page.getByTestId('skirt-say').click();
      expect((await said()).at(-1)).toMatch(/sixteenth|Offset/);
      // What was looked at survives a reload, and is undone look by look.
      await page.reload();
      await page.getByTestId('skirt-made').waitFor();
      await tap(page, 'skirt-undo');
      await tap(page, `look-${looks.left}`);
    }
    await tap(page, 'skirt-made');
  }
  expect(await page.getByTestId('skirt-title').innerText()).toBe('All four sides touch: leave it.');
  await page.getByTestId('skirt-keep').click();
  await page.getByTestId('levels').waitFor();
  const note = await eventually(async () => {
    const { items: notes } = await shop.get<{ items: LevelNote[] }>(`/level-notes?machineId=${machine.id}`);
    expect(notes[0]).toMatchObject({ way: 'skirt', result: { verdict: 'even' } });
    return notes[0]!;
  });
  // Raw: every look and every move.
  expect(note.raw).toMatchObject({ rounds });
  expect(await page.getByTestId('level-skirt').first().innerText()).toMatch(/by its skirt/);
  await page.context().close();
});

test('a round on the practice bed: felt, turned, measured, named and scored, with a line in the book', async () => {
  const page = await shop.page(PHONE, { as: 'technician' });
  await page.goto('/tools');
  await page.getByTestId('to-practice').click();
  await page.getByTestId('practice-plan').waitFor();
  await page.getByTestId('practice-level-any').click();
  await tap(page, 'practice-feel');
  expect(await page.getByTestId('practice-saw').innerText()).toMatch(/: (jammed|tight|drags|light|free)$/);
  await page.getByTestId('practice-eighths').fill('many');
  await page.getByTestId('practice-eighths-error').waitFor();
  await page.getByTestId('practice-eighths').fill('2');
  await tap(page, 'practice-clock');
  expect(await page.getByTestId('practice-saw').innerText()).toMatch(/: a quarter turn clockwise$/);
  await tap(page, 'practice-caliper');
  expect(await page.getByTestId('practice-saw').innerText()).toMatch(/^Ten sheets: \d/);
  await tap(page, 'practice-read');
  await page.getByTestId('practice-map').waitFor();
  expect(await page.getByTestId('practice-so-far').innerText()).toMatch(/4\. The map[\s\S]*1\. /);
  // It survives a reload.
  await page.reload();
  await page.getByTestId('practice-done').click();
  // The first bed of any kind hides a sticking screw.
  await page.getByTestId('cause-sticky').click();
  await page.getByTestId('practice-score').waitFor();
  expect(await page.getByTestId('practice-was').innerText()).toBe('It was: a sticking screw.');
  expect(await page.getByTestId('practice-points').innerText()).toBe('30');
  expect(Number(await page.getByTestId('practice-best').innerText())).toBeGreaterThan(4);
  await page.getByTestId('practice-write').click();
  expect(await bookSays('Practice bed 1')).toMatch(/^Practice bed 1, a sticking screw: 30 of 100 points, 4 touches/);
  await page.getByTestId('practice-next').click();
  expect(await page.getByTestId('page-title').innerText()).toBe('Practice bed 2');
  await page.context().close();
});

test('paper and feel without a record, with a gauge of the shop; turns in degrees where the shop says so', async () => {
  const lead = await shop.page(PHONE, { as: 'lead' });
  await lead.goto('/settings');
  await lead.getByTestId('set-turns-degrees').click();
  await lead.getByTestId('set-save').click();
  await eventually(async () => expect((await shop.get<{ turns: string }>('/settings')).turns).toBe('degrees'));
  await lead.goto('/tools/feel');
  await lead.getByTestId('gauge-caliper').fill('2,08');
  await lead.getByTestId('gauge-name').fill('Blue card');
  await lead.getByTestId('gauge-keep').click();
  await bookSays('Blue card');
  await lead.reload();
  await lead.getByTestId('gauge-caliper').fill('');
  await choose(lead, 'gauge-known', (await shop.get<{ items: { id: string }[] }>('/gauges')).items[0]!.id);
  expect(await lead.getByTestId('gauge-thickness').innerText()).toMatch(/^0\.208 mm/);
  await lead.getByTestId('bed-plain-3').click();
  for (const i of [0, 1]) await lead.getByTestId(`feel-gate-${i}`).click();
  await lead.getByTestId('begin-feel').click();
  await lead.getByTestId('feel-free').click();
  await rested(lead);
  for (let touches = 0; touches < 6 && (await lead.getByTestId('feel-turned').count()) === 0; touches++) {
    await lead.getByTestId('feel-free').click();
    await rested(lead);
  }
  expect(await lead.getByTestId('feel-title').innerText()).toMatch(/: [\d.]+° (anti)?clockwise, looking down; raises/);
  await lead.getByTestId('till-dragged').click();
  await lead.getByTestId('own-eighths').fill('45');
  await lead.getByTestId('own-done').click();
  await lead.getByTestId('own-turn').waitFor({ state: 'detached' });
  await lead.goto('/settings');
  await lead.getByTestId('set-turns-parts').click();
  await lead.getByTestId('set-save').click();
  await eventually(async () => expect((await shop.get<{ turns: string }>('/settings')).turns).toBe('parts'));
  await lead.context().close();
});

test('the first gap from a machine’s film, and what pieces say of zero; two ways compared by a rule fixed before', async () => {
  const page = await shop.page(PHONE, { as: 'technician' });
  const stilt = await shop.machineId('Stilt');
  await page.goto(`/floor/${stilt}`);
  await unfold(page, 'level-glance');
  await page.getByTestId('to-gap').click();
  await page.getByTestId('gap-sentence').waitFor();
  await page.getByTestId('field-ten').fill('1,27');
  await page.getByTestId('field-film').fill('0.127');
  await eventually(async () => expect(await page.getByTestId('gap-value').innerText()).toMatch(/^0\.04\d mm/));
  await page.getByTestId('field-film').fill('0.2');
  await eventually(async () =>
    expect(await page.getByTestId('gap-sentence').innerText()).toMatch(/would press the film/),
  );
  await page.getByTestId('field-film').fill('0.127');
  // Pieces printed flat lack 0.04: zero goes up by that.
  for (const [list, heights] of [
    ['flat', ['9,96', '9,97', '9,95', '9,96']],
    ['control', ['10', '10,01', '9,99', '10']],
  ] as const)
    for (const [i, height] of heights.entries()) {
      await page.getByTestId(`${list}-add`).click();
      await page.getByTestId(`field-${list}.${i}.height`).fill(height);
    }
  await eventually(async () =>
    expect(await page.getByTestId('gap-do').innerText()).toBe('By the pieces: zero up by 0.04 mm.'),
  );
  await page.getByTestId('save-plan').click();
  await choose(page, 'plan-machine', stilt);
  await page.getByTestId('plan-keep').click();
  await eventually(async () => {
    const { items } = await shop.get<{ items: Plan[] }>(`/plans?machineId=${stilt}`);
    expect(items[0]!.sentence).toMatch(/^First gap 0\.04 mm.*zero up by 0\.04 mm\.$/);
  });
  // A plan of zero sets none: that is a fact of its own.
  expect((await shop.get<MachineZero>(`/machines/${stilt}/zero`)).zero).not.toBeNull();

  await page.goto('/tools/compare');
  await eventually(async () =>
    expect(await page.getByTestId('compare-sentence').innerText()).toMatch(
      /^Thick paper is 0\.05 mm more than thin paper/,
    ),
  );
  await page.getByTestId('differs-machine').click();
  await eventually(async () =>
    expect(await page.getByTestId('compare-also').innerText()).toMatch(/two machines\. This compares that too/),
  );
  // Before its look nothing is said, however far apart.
  await page.getByTestId('field-each').fill('6');
  await eventually(async () =>
    expect(await page.getByTestId('compare-sentence').innerText()).toBe('No look yet: 2 more of each.'),
  );
  // How often each held: counted, not measured.
  await page.getByTestId('compare-reads-held').click();
  await page.getByTestId('field-each').fill('10');
  await page.getByTestId('field-matters').fill('20');
  for (const [list, held, of] of [
    ['heldA', '3', '10'],
    ['heldB', '11', '10'],
  ] as const) {
    await page.getByTestId(`readings-${list}-add`).click();
    await page.getByTestId(`field-${list}.0.held`).fill(held);
    await page.getByTestId(`field-${list}.0.of`).fill(of);
  }
  await page.getByText('More held than were tried: 10.').first().waitFor();
  await page.getByTestId('field-heldB.0.held').fill('10');
  await eventually(async () =>
    expect(await page.getByTestId('compare-sentence').innerText()).toBe(
      'Thick paper held in 100 %, thin paper in 30 %: more than chance would. It ends here.',
    ),
  );
  await page.context().close();
});

test('what one machine taught stands on the page of the next of its model, and before the same job there', async () => {
  const page = await shop.page(PHONE, { as: 'technician' });
  const { items } = await shop.get<{ items: MachineOverview[] }>('/machines');
  const curlew = items.find(({ name }) => name === 'Curlew')!;
  const next = items.find(({ model, id }) => model === curlew.model && id !== curlew.id)!;
  await page.goto(`/floor/${next.id}`);
  await unfold(page, 'facts');
  await page.getByTestId('to-model').click();
  const taught = page.getByTestId('taught-under-bed-check-Curlew');
  await taught.waitFor();
  expect(await taught.innerText()).toMatch(/Clamp, tail or tie: 10\.6 mm\./);
  await page.goto(`/jobs/new?procedure=under-bed-check&machine=${next.id}`);
  await page.getByTestId('taught-here').getByText('Curlew: Under-bed check and washers').waitFor();
  await page.context().close();
});

test('the feet of a printer by two readings; the level’s own bias cancels, and it says what it can’t do', async () => {
  const page = await shop.page(PHONE, { as: 'technician' });
  await page.goto('/tools');
  await page.getByTestId('to-feet').click();
  await page.getByText('This can’t tram a bed').waitFor();
  await page.getByTestId('feet-across-first').fill('1,5');
  await page.getByTestId('feet-across-turned').fill('-0,5');
  await page.getByTestId('feet-across-span').fill('200');
  expect(await page.getByTestId('feet-across-tilt').innerText()).toBe('1.00°');
  expect(await page.getByTestId('feet-across-bias').innerText()).toBe('0.50°');
  expect(await page.getByTestId('feet-across-do').innerText()).toBe('Raise the right feet by 3.5 mm.');
  await page.getByTestId('feet-along-first').fill('steep');
  await page.getByTestId('feet-along-first-error').waitFor();
  await page.context().close();
});

test('the sign of a map is settled by a place that was made higher', async () => {
  const page = await shop.page(PHONE, { as: 'technician' });
  await beginCheck(page, await shop.machineId('Knot'));
  await page.getByTestId('way-pasted').click();
  const heights = [10, 60, 110, 160, 210].flatMap((y) =>
    [10, 60, 110, 160, 210].map((x) => `${x},${y},${(0.0004 * x - (x === 210 && y === 210 ? 0.3 : 0)).toFixed(3)}`),
  );
  await page.getByTestId('heights-text').fill(['x,y,z', ...heights].join('\n'));
  await page.getByTestId('settle').click();
  await page.getByTestId('sign-at-rear right').click();
  await eventually(async () => expect(await page.getByTestId('sign-read').innerText()).toMatch(/\+ means lower\.$/));
  await page.getByTestId('sign-at-front left').click();
  await eventually(async () =>
    expect(await page.getByTestId('sign-read').innerText()).toMatch(/stands out by .* only/),
  );
  await page.getByTestId('sign-at-rear right').click();
  await page.getByTestId('sign-take').click();
  await page.getByTestId('settle-sign').waitFor({ state: 'detached' });
  expect(await page.getByTestId('plus-lower').getAttribute('aria-checked')).toBe('true');
  await page.context().close();
});

test('nine thin pieces are read by place: one side is a tilt', async () => {
  const page = await shop.page(PHONE, { as: 'technician' });
  await page.goto(`/jobs/new?procedure=first-print-resin&machine=${await shop.machineId('Stilt')}`);
  await page.getByTestId('ready-at').waitFor();
  await page.getByTestId('begin-job').click();
  await page.getByTestId('job').waitFor();
  await page.getByTestId('check-start-0').click();
  await tap(page, 'step-done');
  await page.getByTestId('piece-grid').waitFor();
  for (const column of ['left', 'middle', 'right'])
    for (let taps = 0; taps < 3; taps++) await page.getByTestId(`piece-front-${column}`).click();
  await page.getByTestId('rest-usual').click();
  expect(await page.getByTestId('pieces-sum').innerText()).toBe('The front fails and its opposite holds: a tilt.');
  await tap(page, 'step-done');
  await page.getByTestId('card-tilt').waitFor();
  await page.context().close();
});
