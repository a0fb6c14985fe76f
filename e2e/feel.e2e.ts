import type { LevelCheck, MachineOverview } from '@even-bed/contract';
import { lookingDown } from '@even-bed/core/level/seenFrom';
import {
  FEEL_EDGES,
  FEELS,
  feelShares,
  gapAt,
  MIDDLE,
  nextMove,
  replayFeel,
  startFeel,
  type Feel,
  type FeelEvent,
} from '@even-bed/core/level/feel';
import { gaugeOf } from '@even-bed/core/level/gauge';
import { stiffBed } from '@even-bed/core/level/stiffBed';
import type { Page } from 'playwright-core';
import { beginCheck, eventually, listen, PHONE, serverCheck, rested, TestShop } from './shop';

let shop: TestShop;
let machines: MachineOverview[];
beforeAll(async () => {
  shop = await TestShop.open({ demo: true });
  machines = (await shop.get<{ items: MachineOverview[] }>('/machines')).items;
});
afterAll(() => shop.close());

const paper = gaugeOf({ kind: 'paper', caliper: { pieces: 10, reading: 1.04 }, layers: 1 });

/** A bed that is out by so much at each adjuster; it moves as its screws say. */
function bedOf(machine: MachineOverview, out: readonly number[]) {
  const adjusters = lookingDown(machine.adjusters, machine.seenFrom);
  const rises = adjusters.map((_, i) => out[i]!);
  const start = startFeel({ adjusters, gauge: paper });
  return {
    start,
    feel: (at: string): Feel => {
      const { a, b, c } = stiffBed(adjusters)(rises);
      const place = start.places.find(({ id }) => id === at)!;
      const gap = -(a * place.x + b * place.y + c);
      return FEELS[FEEL_EDGES.filter((edge) => gap > edge).length]!;
    },
    turn: (id: string, turns: number) => {
      const i = adjusters.findIndex((one) => one.id === id);
      rises[i]! += turns * adjusters[i]!.pitch * (adjusters[i]!.clockwise === 'raises' ? 1 : -1);
    },
  };
}

async function begin(page: Page, machine: MachineOverview): Promise<void> {
  await beginCheck(page, machine.id);
  await page.getByTestId('way-felt').click();
  await page.getByTestId('gauge-caliper').fill('1,04');
  expect(await page.getByTestId('gauge-thickness').innerText()).toMatch(/^0\.104 mm/);
  // The gates stand before it.
  await page.getByTestId('begin-feel').click();
  await page.getByTestId('feel-refusal').waitFor();
  for (const i of [0, 1]) await page.getByTestId(`feel-gate-${i}`).click();
  await page.getByTestId('begin-feel').click();
  await page.getByTestId('feeling').waitFor();
}

test.each([3, 4])(
  'paper and feel on %i adjusters, to even, the middle last; it is a level check like any other',
  async (count) => {
    const machine = machines.find(({ adjusters }) => adjusters.length === count)!;
    const bed = bedOf(machine, [0.21, -0.16, 0.08, -0.02].slice(0, count));
    const page = await shop.page(PHONE, { as: 'technician' });
    await begin(page, machine);
    const history: FeelEvent[] = [];
    for (let touches = 0; ; touches++) {
      expect(touches).toBeLessThan(80);
      const move = nextMove(replayFeel(bed.start, history));
      if (move.do === 'done' || (move.do === 'stop' && move.why === 'as-near-as-felt')) break;
      if (move.do === 'stop') throw new Error(move.why);
      const name = machine.adjusters.find(({ id }) => id === (move.do === 'feel' ? move.at : move.adjuster))!.name;
      expect((await page.getByTestId('feel-title').innerText()).toLowerCase().startsWith(name.toLowerCase())).toBe(
        true,
      );
      if (move.do === 'feel') {
        const feel = bed.feel(move.at);
        history.push({ do: 'feel', at: move.at, feel });
        await page.getByTestId(`feel-${feel}`).click();
      } else {
        bed.turn(move.adjuster, move.turns);
        history.push({ do: 'turn', adjuster: move.adjuster, turns: move.turns });
        await page.getByTestId('feel-turned').click();
      }
      await rested(page);
    }
    // It survives a reload in the middle; the middle is felt last.
    await page.reload();
    expect(await page.getByTestId('feel-title').innerText()).toMatch(/^The middle/);
    await page.getByTestId(`feel-${bed.feel(MIDDLE)}`).click();
    await eventually(async () => expect(await page.getByTestId('feel-title').innerText()).toMatch(/^Even/));
    expect(await page.getByTestId('gauge-effect').innerText()).toMatch(/Levelled with 0\.104 mm/);
    await page.getByTestId('use-heights').click();
    await page.getByTestId('finish').click();
    const check = await serverCheck<LevelCheck>(shop, page, ({ outcome }) => outcome === 'finished');
    expect(check.roundList[0]!.source).toBe('felt');
    expect(check.roundList[0]!.raw).toContain('# felt with 0.104 mm');
    expect(check.after!).toBeLessThan(0.1);
    await page.context().close();
  },
  // Up to eighty touches, one after the other.
  240_000,
);

test('a feel that does not fit is felt again; turned till it dragged is a reading too; the voice says what is next', async () => {
  const machine = machines.find(({ adjusters }) => adjusters.length === 4)!;
  const page = await shop.page(PHONE, { as: 'technician' });
  const said = await listen(page);
  await begin(page, machine);
  await page.getByTestId('feel-say').click();
  const [first] = machine.adjusters;
  expect((await said()).at(-1)).toMatch(/how does it feel\?$/);
  // Turned by hand until it dragged, an eighth at a time.
  await page.getByTestId('till-dragged').click();
  await page.getByTestId('own-eighths').fill('many');
  await page.getByTestId('own-eighths-error').waitFor();
  await page.getByTestId('own-eighths').fill('2');
  await page.getByTestId(`own-adjuster-${first!.id}`).click();
  await page.getByTestId('own-done').click();
  await page.getByTestId('own-turn').waitFor({ state: 'detached' });
  const adjusters = lookingDown(machine.adjusters, machine.seenFrom);
  const state = replayFeel(startFeel({ adjusters, gauge: paper }), [
    { do: 'turn', adjuster: first!.id, turns: 0.25 },
    { do: 'feel', at: first!.id, feel: 'drags' },
  ]);
  // It is known far better than before, though a key may be the wrong one.
  const untouched = gapAt(startFeel({ adjusters, gauge: paper }), first!.id).sd;
  expect(gapAt(state, first!.id).sd).toBeLessThan(untouched / 3);
  // Undone, and felt as it is, until one place is well known: there it is said to be what it can hardly be.
  await page.getByTestId('feel-undo').click();
  await page.getByTestId('feel-undo').click();
  const bed = bedOf(machine, [0.12, -0.1, 0.05, -0.02]);
  const history: FeelEvent[] = [];
  let contradicted = false;
  for (let touches = 0; touches < 60 && !contradicted; touches++) {
    const now = replayFeel(bed.start, history);
    const move = nextMove(now);
    if (move.do === 'done' || move.do === 'stop') break;
    if (move.do === 'turn') {
      bed.turn(move.adjuster, move.turns);
      history.push({ do: 'turn', adjuster: move.adjuster, turns: move.turns });
      await page.getByTestId('feel-turned').click();
    } else {
      // The key that could hardly be, once there is one.
      const shares = feelShares(now, move.at);
      const feel = FEELS.find((_, i) => shares[i]! < 0.0045) ?? bed.feel(move.at);
      history.push({ do: 'feel', at: move.at, feel });
      await page.getByTestId(`feel-${feel}`).click();
    }
    await rested(page);
    contradicted = (await page.getByTestId('contradiction').count()) > 0;
  }
  expect(contradicted).toBe(true);
  expect(await page.getByTestId('contradiction').innerText()).toMatch(/Feel it again/);
  expect(await page.getByTestId('feel-title').innerText()).toMatch(/Feel it again$/);
  await page.context().close();
});
