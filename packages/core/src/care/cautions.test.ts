import { CAUTIONS, type CautionId } from './cautions';
import { PROCEDURES } from './procedures';
import { doingOf } from './runProcedure';
import { combinations } from './checkProcedure';

/**
 * What is said of a doing, and the caution that stands with it. Source: the usual cautions of the work, common practice.
 * The words are those of the documents; a doing that is told otherwise and is dangerous is a caution missing here.
 */
const BELONGS: readonly (readonly [CautionId, RegExp])[] = [
  ['solvent', /\b(alcohol|acetone)\b/i],
  ['blade', /\b(scraper|knife|scrape it|trim what|trim the base|prick)/i],
  ['magnet', /\b(sheet down|let the plate down|magnet (over|on)|Lay base and sheet)\b/],
  ['dust', /\b(grit|steel wool|grind|scuff all over|saw on a scrap|strokes, the off-cut)/i],
  ['mains', /\b(unplug(ged)?|switch’s plug|heater wiring)\b/i],
  ['insulate', /insulating washer/i],
  ['glass', /\b(pane down|Score and snap|splinters|One stroke from edge)\b/],
  ['knock', /\b(home slowly|until home trips)\b/i],
  ['moving', /\b(home slowly|by jog|own jog|clear of belts)\b/i],
  ['resin', /\b(vat out|resin)\b/i],
  ['hot', /\b(nozzle hot|warm it|60 to 70 °C|70 °C)\b/i],
  ['belt', /belt tail/i],
  ['bend', /\b(ease a bow|Over a straight edge)\b/],
];
/** Said, and not done: a reason to look, a job that waits, a place where something must not go. */
const NOT_DONE =
  /That is (a|the) job|No software|Without a thermometer|begin again with another|is a rung of the ladder|resin machine|on resin|of a resin/i;

describe('each caution stands with the doing that it belongs to', () => {
  test.each(Object.keys(CAUTIONS) as CautionId[])('%s appears in a job', (caution) => {
    expect(PROCEDURES.some(({ steps }) => steps.some(({ cautions = [] }) => cautions.includes(caution)))).toBe(true);
  });

  test.each(PROCEDURES.map((doc) => [doc.id, doc] as const))('%s', (_, doc) => {
    const bare: string[] = [];
    for (const choices of combinations(doc).slice(0, 40))
      for (const step of doc.steps) {
        const doing = doingOf(step, choices);
        if (NOT_DONE.test(doing)) continue;
        // Hands are full: what stands over the phase was read before.
        const before = step.bound ? doc.steps.filter(({ phase }) => phase === step.phase) : [step];
        const said = new Set(before.flatMap(({ cautions = [] }) => cautions));
        for (const [caution, words] of BELONGS)
          if (words.test(doing) && !said.has(caution)) bare.push(`${step.id}: ${caution} (${words.exec(doing)![0]})`);
      }
    expect([...new Set(bare)]).toEqual([]);
  });

  test('all that cannot be undone says that there is one chance, how it cuts, or when to stop', () => {
    for (const { steps } of PROCEDURES)
      for (const step of steps.filter(({ onceOnly }) => onceOnly)) {
        const gates = steps.filter(({ id }) => step.behind?.includes(id));
        const said = [step, ...gates].flatMap(({ cautions = [] }) => cautions);
        expect(said.some((caution) => ['once', 'blade', 'knock'].includes(caution))).toBe(true);
      }
  });
});
