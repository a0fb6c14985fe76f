import type { BedShape, LapPlace, ShapeName, ShapePart, ShapeResult, ShimStrip } from '@even-bed/core';
import type { FirstLayerComparison, LayerLook } from '@even-bed/core/level/compareFirstLayer';
import type { MapComparison } from '@even-bed/core/level/compareMaps';
import type { LapVerdict } from '@even-bed/core/level/lapProgress';
import type { LightVerdict, SurveyLineId } from '@even-bed/core/level/lightSurvey';
import type { ShimPlan } from '@even-bed/core/level/planShims';
import type { CureId, CureNeed, ShapeCure } from '@even-bed/core/level/shapeCures';
import type { NextMap } from '@even-bed/core/level/splitShape';
import { counted, figuresFor, type Reader } from './figures';

const NAMES: Record<ShapeName, string> = {
  none: 'No shape beyond what this probe can see',
  untold: 'Nothing says how these readings scatter',
  dome: 'A dome: higher in the middle',
  dish: 'A dish: lower in the middle',
  saddle: 'A saddle: up one way, down the other',
  'bow-up': 'Bowed up along one side',
  'bow-down': 'Hollow along one side',
  twist: 'Twisted',
  ridge: 'A ridge',
  valley: 'A valley',
  'high-region': 'One high region',
  'low-region': 'One low region',
  bump: 'One bump',
  pit: 'One pit',
};

/** What shape it is, how large, and where to look first. */
export function shapeWords({ name, parts, sees }: Pick<BedShape, 'name' | 'parts' | 'sees'>, reader: Reader): string {
  const { length } = figuresFor(reader);
  if (name === 'none') return sees ? `${NAMES.none}: a bow of ${length(sees.bow)} would show.` : `${NAMES.none}.`;
  if (name === 'untold') return `${NAMES.untold}: read each place twice, and it will.`;
  const [first] = parts;
  const size = first ? `, ${length(Math.abs(first.size))}` : '';
  const look =
    name === 'high-region' ? ' Look under the bed first.' : name === 'bump' ? ' Look under the sheet first.' : '';
  return `${NAMES[name]}${size}.${look}`;
}

const DIRECTIONS: Record<0 | 45 | 90 | 135, string> = {
  0: 'from left to right',
  45: 'from front left to rear right',
  90: 'from front to rear',
  135: 'from front right to rear left',
};

/** One thing of a shape with its size and how well it is known. */
export function partWords(part: ShapePart, reader: Reader): string {
  const { decimal } = figuresFor(reader);
  const { length } = figuresFor(reader);
  const size = `${length(Math.abs(part.size))} ± ${decimal(reader.units === 'in' ? part.sd / 25.4 : part.sd, reader.units === 'in' ? 4 : 3)}`;
  const up = part.size > 0;
  switch (part.kind) {
    case 'bow':
      return `${up ? 'higher' : 'lower'} in the middle ${part.along === 'x' ? 'from left to right' : 'from front to rear'}, ${size}`;
    case 'cap':
      return `${up ? 'higher' : 'lower'} in the middle than all round its edge, ${size}`;
    case 'twist':
      return `twisted, ${up ? 'front left and rear right up' : 'front right and rear left up'}, ${size}`;
    case 'ridge':
      return `${up ? 'a ridge' : 'a valley'} ${DIRECTIONS[part.direction]}, ${size}`;
    case 'region':
      return `${up ? 'a high' : 'a low'} region, ${size}`;
    case 'bump':
      return `${up ? 'a bump' : 'a pit'} at one reading, ${size}`;
  }
}

export const LINE_NAMES: Record<SurveyLineId, string> = {
  'along-left': 'along, on the left',
  'along-right': 'along, on the right',
  'across-front': 'across, in front',
  'across-rear': 'across, at the rear',
  'diagonal-1': 'front left to rear right',
  'diagonal-2': 'front right to rear left',
  'along-middle': 'along the middle',
  'across-middle': 'across the middle',
};

const LIGHT_VERDICTS: Record<LightVerdict, string> = {
  flat: 'Flat',
  dome: 'Higher in the middle',
  dish: 'Lower in the middle',
  twist: 'Twisted',
  region: 'One high region: look under the bed first',
  bump: 'One bump: look under the sheet first',
  mixed: 'Not flat, and of no one shape',
  again: 'The lines contradict each other',
};

/** What a survey by light came to. */
export function lightWords(
  {
    verdict,
    flatness,
    closure,
    trust,
    suspects,
    resolution,
  }: Omit<Extract<ShapeResult, { kind: 'light' }>, 'kind' | 'name'>,
  reader: Reader,
): { verdict: string; trust: string } {
  const { length } = figuresFor(reader);
  const lines = suspects.map((id) => LINE_NAMES[id as SurveyLineId]).join(', or ');
  return {
    verdict:
      verdict === 'again'
        ? `${LIGHT_VERDICTS.again}.`
        : resolution > flatness / 2
          ? `${LIGHT_VERDICTS[verdict]}, about ${length(flatness)} in all. Light alone can be wrong by ${length(resolution)}: try a feeler.`
          : `${LIGHT_VERDICTS[verdict]}, ${length(flatness)} in all.`,
    trust:
      trust === 'closes'
        ? `Lines meet within ${length(Math.max(0.01, Math.ceil(closure * 100) / 100))}: the survey can be trusted.`
        : trust === 'contradicts'
          ? `Lines miss each other by ${length(closure)}. Look again: ${lines || 'all of them, and the two through the middle'}.`
          : 'Too few lines cross to tell whether they agree.',
  };
}

/** A strip as it is laid. */
export function stripWords({ along, at, from, to, layer }: ShimStrip, reader: Reader): string {
  const { size } = figuresFor(reader);
  const place = along === 'x' ? `its middle ${size(at, 0)} from the front` : `its middle ${size(at, 0)} from the left`;
  const ends =
    along === 'x'
      ? `${size(from, 0)} to ${size(to, 0)} from the left`
      : `${size(from, 0)} to ${size(to, 0)} from the front`;
  return `${along === 'x' ? 'Left to right' : 'Front to rear'}, ${place}, from ${ends}${layer > 1 ? `, as layer ${layer}` : ''}`;
}

/** What strips come to. */
export function shimWords(
  { verdict, why, strips, before, after }: Pick<ShimPlan, 'verdict' | 'why' | 'strips' | 'before' | 'after'>,
  reader: Reader,
): string {
  const { length } = figuresFor(reader);
  switch (verdict) {
    case 'flat':
      return `${length(before)}: flat enough as it is.`;
    case 'cures':
      return `${counted(strips.length, 'strip leaves', 'strips leave')} ${length(after)} of ${length(before)}, once it is levelled again.`;
    case 'helps':
      return `${counted(strips.length, 'strip leaves', 'strips leave')} ${length(after)} of ${length(before)}: better, not within the aim.`;
    case 'no':
      return {
        bump: 'No strips for one bump: look under the sheet first.',
        region: 'No strips for one high region: look under the bed first.',
        coarse: `This tape is too thick: the step at its edge leaves most of the ${length(before)}.`,
        shape: `Strips don’t cure this shape, ${length(before)}.`,
      }[why ?? 'shape'];
  }
}

/** Why strips are not the way, and what is looked at instead. @param tape of one layer, mm */
export function noStripsWords(
  { why, before }: Pick<ShimPlan, 'why' | 'before'>,
  tape: { thickness: number },
  reader: Reader,
): string {
  const { length, size } = figuresFor(reader);
  switch (why) {
    case 'bump':
      return 'One place stands up while the rest is even. That is a crumb or a lump under the sheet far more often than the plate.';
    case 'region':
      return 'One area stands up. Something touches from below, or a screw is forced: free it before anything is laid.';
    case 'coarse':
      return `One layer of ${size(tape.thickness, 3)} is more than three quarters of the ${length(before)}. Use thinner tape, or one of the ways below.`;
    default:
      return `No set of strips removes a quarter of the ${length(before)}: the dip is too deep or too uneven for this many layers. Allow more layers, or take one of the ways below.`;
  }
}

export const CURE_NAMES: Record<CureId, string> = {
  mount: 'Use it as it is',
  'under-bed': 'Look under the bed',
  'under-sheet': 'Look under the sheet',
  shim: 'Shim it with tape',
  ease: 'Ease it straight',
  map: 'Let the machine follow its map',
  'glass-pad': 'A pane on a pad',
  'glass-clips': 'A pane, clipped on',
  lap: 'Lap it',
  machinist: 'A machinist grinds it flat',
};

const NEEDS: Record<CureNeed, string> = {
  'heater-off': 'only off the machine, its heater off it or its maker allowing it',
  'prove-glass': 'prove the pane by light first',
  'prove-reference': 'prove glass or granite by light first',
  'air-gap': 'air stands under it: it warms late',
  'stack-changes': 'the stack is thicker: home moves',
  price: 'ask the price and how much comes off: thinner, it needs home moved',
  compensation: 'check once that it does follow its map',
  'measure-tape': 'measure the tape first',
};
const NOT: Record<NonNullable<ShapeCure['not']>, string> = {
  forbidden: 'not with its heater on it',
  'no-tape': 'measure the tape first',
  'no-gain': 'gains nothing here',
  'not-this-family': 'not on this kind of machine',
  'nothing-there': 'nothing points there',
  'no-compensation': 'this machine follows no map',
};

/** What a cure would leave, and what has to be so. */
export function cureWords({ leaves, within, needs, not }: ShapeCure, reader: Reader): string {
  if (not !== null) return `${NOT[not][0]!.toUpperCase()}${NOT[not].slice(1)}.`;
  const { length } = figuresFor(reader);
  const left =
    leaves === null
      ? 'What it leaves shows when it is done'
      : `Leaves ${length(leaves)}${within ? '' : ', not within the aim'}`;
  return `${[left, ...needs.map((need) => NEEDS[need])].join('; ')}.`;
}

export const LAP_PLACE_NAMES: Record<LapPlace, string> = {
  'front-left': 'front left',
  'front-right': 'front right',
  'rear-left': 'rear left',
  'rear-right': 'rear right',
  middle: 'middle',
};

/** What rounds of lapping say, and what comes next. */
export function lapWords(
  {
    verdict,
    touched,
    left,
    least,
  }: {
    verdict: LapVerdict;
    touched: number;
    left: { rounds: number; low: number; high: number } | null;
    least?: LapPlace;
  },
  reader: Reader,
): { verdict: string; next: string } {
  const { short } = figuresFor(reader);
  const share = `${short(touched, 0)} % touched`;
  const where = least === undefined ? '' : `, least at ${LAP_PLACE_NAMES[least]}`;
  switch (verdict) {
    case 'first':
      return { verdict: `${share}${where}.`, next: 'A second round tells how many are left.' };
    case 'go-on':
      return {
        verdict: `${share}${where}. About ${counted(left!.rounds, 'round', 'rounds')} left, ${left!.low} to ${left!.high} in nine of ten.`,
        next: 'Five strokes one way, lifted back, a quarter turn: four times.',
      };
    case 'nearly':
      return { verdict: `${share}${where}. One round more settles it.`, next: 'The same again, no harder.' };
    case 'done':
      return {
        verdict: 'Nothing is untouched: stop.',
        next: '80 diagonally for tooth, then 120 lightly for burrs. Wipe, and look by light.',
      };
    case 'doming':
      return {
        verdict: 'You are doming it: the edges fade while the middle is touched.',
        next: 'Hands low and in the middle, shorter strokes, no rocking at the ends. Wipe the reference, look by light, then go on.',
      };
    case 'stalled':
      return {
        verdict: `${share}${where}: the last rounds took nothing off.`,
        next: 'The sheet is clogged or worn: a new one, wiped underneath.',
      };
  }
}

export const LAYER_LOOK_HINTS: Record<LayerLook, string> = {
  gaps: 'lines apart',
  touching: 'even, flat',
  ridged: 'edges rise',
};

/** What a first layer says of compensation; printed with it off, of the map and its sign. */
export function layerWords(
  { verdict, way, over, more, slope }: Pick<FirstLayerComparison, 'verdict' | 'way' | 'over' | 'more' | 'slope'>,
  compensation: 'on' | 'off',
  reader: Reader,
): { verdict: string; next: string } {
  const { size } = figuresFor(reader);
  const zero =
    over === null
      ? ''
      : Math.abs(over) < 0.01
        ? ' Zero is right.'
        : over > 0
          ? ` In all it is ${size(over)} over the layer: the nozzle stands high.`
          : ` In all it is ${size(-over)} under the layer: the nozzle stands low.`;
  if (compensation === 'off') {
    const on = `Print it once more with compensation on.${zero}`;
    if (verdict === 'not-applied')
      return { verdict: 'The map is true: with compensation off it is thin where the bed is high.', next: on };
    if (verdict === 'compensated')
      return {
        verdict: 'With compensation off thickness should follow the map, and does not.',
        next: `It was still on, or the map is not of this bed: read it anew.${zero}`,
      };
    if (verdict === 'wrong')
      return way === 'twice-or-stale'
        ? {
            verdict: 'Thick where the map says high: its + means lower, or it is an old map.',
            next: `Settle the sign, or read the map anew.${zero}`,
          }
        : way === 'partly'
          ? {
              verdict: 'With compensation off thickness should follow the map, and does so in part.',
              next: `It may still be on in part, or the map is not quite of this bed: read it anew.${zero}`,
            }
          : {
              verdict: 'Twice as thin where the map says high: this map is not of this bed.',
              next: `Read it anew.${zero}`,
            };
    if (verdict === 'sign' && slope)
      return { verdict: slope.value > 0 ? 'In this map + is higher.' : 'In this map + is lower.', next: on };
  }
  switch (verdict) {
    case 'compensated':
      return { verdict: 'It follows its map: thickness does not.', next: `Leave it on.${zero}` };
    case 'not-applied':
      return {
        verdict: 'Compensation is not applied: thin where the bed is high.',
        next: `See that it is on, and that homing does not clear the map.${zero}`,
      };
    case 'wrong':
      return way === 'reversed'
        ? {
            verdict: 'It goes the wrong way round: twice as thin where the bed is high.',
            next: `The sign is reversed: off until it is put right.${zero}`,
          }
        : way === 'partly'
          ? {
              verdict: 'Compensation is applied in part: a little thin where the bed is high.',
              next: `See whether it fades out with height, or whether its map is coarser than this bed.${zero}`,
            }
          : {
              verdict: 'Thick where the bed is high: applied twice, or by an old map.',
              next: `A new map first; then print again with it off.${zero}`,
            };
    case 'else':
      return {
        verdict: 'Something else: places differ by more than the map and calipers make.',
        next: 'Debris, a loose sheet, a pulsing feed: look, then print again.',
      };
    case 'sign':
      return {
        verdict: 'Off, or the wrong way round: with the sign not settled the two look alike.',
        next: 'Settle first what + means in this map.',
      };
    case 'untold':
      return {
        verdict: 'These can’t tell.',
        next: more
          ? `${counted(more.readings, 'reading more', 'readings more')}, half at the highest and half at the lowest place, would.${zero}`
          : `The map is too flat for calipers to tell: there is little that compensation could do.${zero}`,
      };
  }
}

/** What changed between two maps. */
export function changeWords(
  { verdict, range, lift, beyond }: Pick<MapComparison, 'verdict' | 'range' | 'lift' | 'beyond'>,
  reader: Reader,
): string {
  const { length, size } = figuresFor(reader);
  switch (verdict) {
    case 'same':
      return 'The same: no more than the readings scatter.';
    case 'tilted':
      return 'Its shape is the same; its tilt changed. Screws, or how it lies.';
    case 'changed':
      return `Its shape changed by ${length(range)}${beyond.length > 0 ? `, most ${size(beyond[0]!.x, 0)} from the left and ${size(beyond[0]!.y, 0)} from the front` : ''}.`;
    case 'untold':
      return `They differ by ${length(range)} of shape and ${length(lift)} of height; nothing says how these readings scatter.`;
    case 'apart':
      return 'Hardly anywhere were both read: nothing to compare.';
  }
}

const FRONT_MARK = [
  '',
  'its front mark to the right',
  'its front mark to the rear',
  'its front mark to the left',
] as const;

/** A map that would tell more. */
export function nextMapWords({ sheet, turned, flipped }: NextMap, machine: string, tag: string): string {
  if (sheet === null) return `${machine} read bare, without a sheet`;
  const lies = [flipped ? 'other side up, where it has two' : '', FRONT_MARK[turned]].filter(Boolean).join(', ');
  return `${tag} on ${machine}${lies ? `, ${lies}` : ''}`;
}

/** A record of a shape in one sentence. */
export function shapeResultWords(result: ShapeResult, reader: Reader): string {
  const { length } = figuresFor(reader);
  switch (result.kind) {
    case 'light':
      return `looked at by light: ${lightWords(result, reader).verdict}`;
    case 'strips':
      return `${counted(result.strips, 'strip', 'strips')} of tape laid, ${length(result.before)} to ${length(result.after)}.`;
    case 'lap':
      return `lapped, ${counted(result.rounds, 'round', 'rounds')}: ${lapWords(result, reader).verdict}`;
    case 'layer':
      return `first layer measured: ${layerWords(result, result.compensation, reader).verdict}`;
  }
}

export const SHAPE_KIND_NAMES: Record<ShapeResult['kind'], string> = {
  light: 'Light survey',
  strips: 'Strips laid',
  lap: 'Lapping',
  layer: 'First layer measured',
};
