import { needNumbers } from '../needNumbers';
import { tQuantile } from '../surfaces/studentT';
import { DegenerateInput } from './errors';
import { gridOf } from './gridOf';
import { smoothBetween } from './heightsBetween';
import { extentOf, type Extent, type HeightPoint } from './HeightPoint';
import { singularOf, solveLeast } from './solveLeast';

/** How a sheet lay: quarter turns anticlockwise seen from above, and whether its other side was up. */
export interface SheetLay {
  turned: 0 | 1 | 2 | 3;
  flipped: boolean;
}

/** A map of a bed with a sheet on it, or bare. */
export interface MapOfBoth extends Partial<SheetLay> {
  machine: string;
  /** Null: bare, read without a sheet. */
  sheet: string | null;
  points: readonly HeightPoint[];
}

/** Heights of one bed or sheet over the common places, its own tilt and mean taken out, mm. */
export interface OneShape {
  kind: 'bed' | 'sheet';
  id: string;
  /** Null where these maps can't tell this place of it from what lies under or over it. */
  heights: (number | null)[];
  /** One standard deviation of each, mm; null as above, or where nothing is left over to tell the scatter. */
  sd: (number | null)[];
  /** What is known of it as a whole even where no single place is: + higher in the middle; twist as corners front left and rear right. */
  bow: { x: Known; y: Known; difference: Known };
  twist: Known;
  told: 'all' | 'some' | 'none';
}
export type Known = { value: number; sd: number | null } | null;

/** What one shape has more than another, where both can be told apart only from each other. */
export interface ShapeDifference {
  kind: 'bed' | 'sheet';
  first: string;
  second: string;
  heights: number[];
  sd: number | null;
}

/** A map that would tell more: which sheet on which machine, how; and how many unknowns it would settle. */
export interface NextMap extends SheetLay {
  machine: string;
  sheet: string | null;
  settles: number;
}

export interface ShapeSplit {
  /** Places a side, rows from the front, over what all maps have in common. */
  side: number;
  /** That, mm on the plate. */
  area: Extent;
  shapes: OneShape[];
  differences: ShapeDifference[];
  /** Standard deviation of one reading as the maps leave it, mm, and its degrees of freedom; null: nothing is left over. */
  noise: { sd: number; freedom: number } | null;
  /** Maps that would settle most, the best first; empty: all is told. */
  next: NextMap[];
}

/** Places a side that maps are brought to: odd, so that there is a middle. */
const SIDE = 5;
const TURNS = [0, 1, 2, 3] as const;
const CELLS = SIDE * SIDE;
/** A combination is determined where what the maps don't see has no more than this share of it. */
const UNSEEN = 1e-6;
const MOST_MAPS = 24;
/** So many are named. */
const MOST_NEXT = 3;

/**
 * Whose shape is it: bed or sheet? Every map is the bed's shape, plus the sheet's as it lay, plus a plane (tilt and zero are
 * never the same twice), plus scatter. Solved by least squares; singular values tell what these maps don't determine, and that
 * is not said.
 *
 * A sheet only ever swapped leaves a shape common to all beds open, which is added to one and taken from the other; turned by
 * halves it leaves what looks alike after a half turn; only a bare bed, or a sheet known to be flat, closes the last.
 * Maps are brought to the area that all of them cover; where a sheet lay turned or flipped that area lies about the plate's middle.
 * @param plate the plate's size, mm, whose middle a sheet turns about; not said: the middle of all that was read
 * @param flat sheets known to be even in thickness, by light or micrometer
 * @param square quarter turns fit: on a plate that is not square a sheet lies only two ways
 * @throws DegenerateInput no maps, maps without an extent, or with less than half a side in common
 * @throws RangeError more maps than `MOST_MAPS`, turns that are none
 * Source: estimability by the null space, e.g. S. R. Searle, Linear Models, Wiley 1971, §5.4.
 */
export function splitShape({
  maps,
  flat = [],
  square = true,
  plate,
}: {
  maps: readonly MapOfBoth[];
  flat?: readonly string[] | undefined;
  square?: boolean | undefined;
  plate?: { width: number; depth: number } | undefined;
}): ShapeSplit {
  needNumbers('splitShape', { maps, plate });
  if (maps.length === 0) throw new DegenerateInput('splitShape needs at least 1 map, got 0');
  if (maps.length > MOST_MAPS) throw new RangeError(`splitShape takes at most ${MOST_MAPS} maps, got ${maps.length}`);
  for (const { turned = 0 } of maps)
    if (!TURNS.includes(turned))
      throw new RangeError(`splitShape knows quarter turns 0, 1, 2, 3, got ${String(turned)}`);
  const machines = [...new Set(maps.map(({ machine }) => machine))].sort();
  const sheets = [
    ...new Set(maps.flatMap(({ sheet }) => (sheet === null || flat.includes(sheet) ? [] : [sheet]))),
  ].sort();
  const area = commonArea(maps, plate, square);
  const system = new System(machines, sheets, area);
  const { rows, readings } = system.rowsOf(maps);
  const solved = solveLeast(rows, readings);
  const { unseen } = solved;
  const freedom = maps.length * (CELLS - 3) - solved.rank;
  const squares = solved.residuals.reduce((sum, rest) => sum + rest * rest, 0);
  const noise = freedom > 0 ? { sd: Math.sqrt(squares / freedom), freedom } : null;
  const known = (combination: readonly number[]): Known => {
    const size = Math.hypot(...combination);
    const hidden = unseen.reduce((sum, direction) => sum + dot(direction, combination) ** 2, 0);
    if (Math.sqrt(hidden) > UNSEEN * size) return null;
    const value = dot(combination, solved.solution);
    return { value, sd: noise ? noise.sd * Math.sqrt(solved.varianceOf(combination)) : null };
  };
  const shapes = system.all.map(({ kind, id }, block): OneShape => {
    const cells = PLAIN.map((column) => known(system.at(block, column)));
    const told = cells.filter((one) => one !== null).length;
    return {
      kind,
      id,
      heights: cells.map((one) => one?.value ?? null),
      sd: cells.map((one) => one?.sd ?? null),
      bow: {
        x: known(system.at(block, BOW_X)),
        y: known(system.at(block, BOW_Y)),
        difference: known(system.at(block, BOW_DIFFERENCE)),
      },
      twist: known(system.at(block, TWIST)),
      told:
        told === CELLS
          ? 'all'
          : told > 0 || [BOW_DIFFERENCE, TWIST].some((one) => known(system.at(block, one)) !== null)
            ? 'some'
            : 'none',
    };
  });
  const open = shapes.some(({ told }) => told !== 'all');
  return {
    side: SIDE,
    area,
    shapes,
    differences: open ? differencesOf(system, known) : [],
    noise,
    next: open ? nextMaps(system, maps, unseen, square) : [],
  };
}

/** Ninety-five in a hundred lie within so many of its deviations. */
export const coverFactor = (freedom: number): number => tQuantile(0.975, freedom);

/** The block of unknowns of each bed and each sheet: its heights over the common places. */
class System {
  readonly all: { kind: 'bed' | 'sheet'; id: string }[];
  constructor(
    readonly machines: readonly string[],
    readonly sheets: readonly string[],
    private readonly area: Extent,
  ) {
    this.all = [
      ...machines.map((id) => ({ kind: 'bed' as const, id })),
      ...sheets.map((id) => ({ kind: 'sheet' as const, id })),
    ];
  }

  get unknowns(): number {
    return this.all.length * CELLS;
  }

  /** A combination of one block's heights as one of all unknowns. */
  at(block: number, column: readonly number[]): number[] {
    const row = new Array<number>(this.unknowns).fill(0);
    column.forEach((value, i) => (row[block * CELLS + i] = value));
    return row;
  }

  /** Rows of maps with every plane taken out: what is left of each place. */
  rowsOf(maps: readonly MapOfBoth[]): { rows: number[][]; readings: number[] } {
    const rows: number[][] = [];
    const readings: number[] = [];
    for (const map of maps) {
      const bed = this.machines.indexOf(map.machine);
      const sheet = map.sheet === null ? -1 : this.sheets.indexOf(map.sheet);
      const lies = sheet < 0 ? null : layOf({ turned: map.turned ?? 0, flipped: map.flipped ?? false });
      const heights = withoutPlane(onPlaces(map.points, this.area));
      for (const [i, column] of PLAIN.entries()) {
        const row = this.at(bed, column);
        if (lies)
          column.forEach((value, cell) => (row[(this.machines.length + sheet) * CELLS + lies[cell]!]! += value));
        rows.push(row);
        readings.push(heights[i]!);
      }
    }
    return { rows, readings };
  }
}

function dot(p: readonly number[], q: readonly number[]): number {
  let sum = 0;
  for (let i = 0; i < p.length; i++) sum += p[i]! * q[i]!;
  return sum;
}

const PLACES = Array.from({ length: CELLS }, (_, i) => ({
  u: (2 * (i % SIDE)) / (SIDE - 1) - 1,
  v: (2 * Math.floor(i / SIDE)) / (SIDE - 1) - 1,
}));

/** Heights without their least-squares plane: on a square grid u, v and 1 are orthogonal. */
function withoutPlane(heights: readonly number[]): number[] {
  const mean = heights.reduce((sum, z) => sum + z, 0) / CELLS;
  const uu = PLACES.reduce((sum, { u }) => sum + u * u, 0);
  const a = PLACES.reduce((sum, { u }, i) => sum + u * heights[i]!, 0) / uu;
  const b = PLACES.reduce((sum, { v }, i) => sum + v * heights[i]!, 0) / uu;
  return heights.map((z, i) => z - mean - a * PLACES[i]!.u - b * PLACES[i]!.v);
}

/** For each place the combination that gives its height without the plane. */
const PLAIN = PLACES.map((_, i) => withoutPlane(PLACES.map((_place, k) => +(k === i))));

/** The factor of a shape in heights, by least squares beside the plane and the other bow. */
function factorOf(
  of: (place: { u: number; v: number }) => number,
  beside: ((place: { u: number; v: number }) => number)[] = [],
): number[] {
  const columns = [() => 1, ({ u }: { u: number }) => u, ({ v }: { v: number; u: number }) => v, ...beside];
  const { residuals } = solveLeast(
    PLACES.map((place) => columns.map((column) => column(place))),
    PLACES.map(of),
  );
  const size = dot(residuals, residuals);
  return residuals.map((value) => value / size);
}
const [BOW_X, BOW_Y] = [
  factorOf(({ u }) => 1 - u * u, [({ v }) => v * v]),
  factorOf(({ v }) => 1 - v * v, [({ u }) => u * u]),
];
const BOW_DIFFERENCE = BOW_X.map((value, i) => value - BOW_Y[i]!);
const TWIST = factorOf(({ u, v }) => u * v);

/** For each place of the bed the sheet's own place that lies there. Flipped first, about the axis from front to rear. */
function layOf({ turned, flipped }: SheetLay): number[] {
  return PLACES.map((_, i) => {
    let [column, row] = [i % SIDE, Math.floor(i / SIDE)];
    // Back by the turn: what came anticlockwise to here was clockwise of it.
    for (let k = 0; k < turned; k++) [column, row] = [row, SIDE - 1 - column];
    if (flipped) column = SIDE - 1 - column;
    return row * SIDE + column;
  });
}

/** Maps with less of a side in common than this tell of different places. Our own choice. */
const LEAST_COMMON = 0.5;

/** What all maps cover, mm; about the middle that sheets turn about where one lay turned or flipped. */
function commonArea(
  maps: readonly MapOfBoth[],
  plate: { width: number; depth: number } | undefined,
  square: boolean,
): Extent {
  const extents = maps.map(({ points }) => extentOf(points));
  if (!extents.every(({ x0, y0, x1, y1 }) => x1 > x0 && y1 > y0))
    throw new DegenerateInput('splitShape needs maps with readings that are not all in one line');
  const most = (values: readonly number[]) => values.reduce((p, q) => Math.max(p, q));
  const least = (values: readonly number[]) => values.reduce((p, q) => Math.min(p, q));
  const [x0s, y0s, x1s, y1s] = (['x0', 'y0', 'x1', 'y1'] as const).map((key) => extents.map((one) => one[key])) as [
    number[],
    number[],
    number[],
    number[],
  ];
  let area = { x0: most(x0s), y0: most(y0s), x1: least(x1s), y1: least(y1s) };
  if (maps.some(({ turned = 0, flipped = false }) => turned !== 0 || flipped)) {
    const [x, y] = plate
      ? [plate.width / 2, plate.depth / 2]
      : [(least(x0s) + most(x1s)) / 2, (least(y0s) + most(y1s)) / 2];
    const wide = Math.min(x - area.x0, area.x1 - x);
    const deep = Math.min(y - area.y0, area.y1 - y);
    // A quarter turn takes one side to the other.
    const [across, along] =
      square && maps.some(({ turned = 0 }) => turned % 2 === 1)
        ? [Math.min(wide, deep), Math.min(wide, deep)]
        : [wide, deep];
    area = { x0: x - across, y0: y - along, x1: x + across, y1: y + along };
  }
  for (const { x0, y0, x1, y1 } of extents)
    if (!(area.x1 - area.x0 >= LEAST_COMMON * (x1 - x0) && area.y1 - area.y0 >= LEAST_COMMON * (y1 - y0)))
      throw new DegenerateInput(
        `splitShape needs maps over the same places, got ${Math.max(0, Math.round(area.x1 - area.x0))} × ${Math.max(0, Math.round(area.y1 - area.y0))} mm in common`,
      );
  return area;
}

/** Heights of a map at the common places. */
function onPlaces(points: readonly HeightPoint[], { x0, y0, x1, y1 }: Extent): number[] {
  const at = smoothBetween(points, gridOf(points));
  return PLACES.map(({ u, v }) => at(x0 + ((x1 - x0) * (u + 1)) / 2, y0 + ((y1 - y0) * (v + 1)) / 2));
}

function differencesOf(system: System, known: (combination: readonly number[]) => Known): ShapeDifference[] {
  return system.all.flatMap((first, p) =>
    system.all.slice(p + 1).flatMap((second, k): ShapeDifference[] => {
      if (second.kind !== first.kind) return [];
      const q = p + 1 + k;
      const cells = PLAIN.map((column) =>
        known(system.at(p, column).map((value, i) => value - system.at(q, column)[i]!)),
      );
      if (cells.some((one) => one === null)) return [];
      return [
        {
          kind: first.kind,
          first: first.id,
          second: second.id,
          heights: cells.map((one) => one!.value),
          sd: cells[0]!.sd === null ? null : Math.max(...cells.map((one) => one!.sd!)),
        },
      ];
    }),
  );
}

/** Which one map more would settle most: each sheet on each machine, however it lies, and each bed bare. */
function nextMaps(
  system: System,
  maps: readonly MapOfBoth[],
  unseen: readonly (readonly number[])[],
  square: boolean,
): NextMap[] {
  const tried: NextMap[] = [];
  const sample = maps[0]!.points;
  for (const machine of system.machines) {
    const ways: Omit<NextMap, 'settles' | 'machine'>[] = [
      { sheet: null, turned: 0, flipped: false },
      ...system.sheets.flatMap((sheet) =>
        TURNS.filter((turned) => square || turned % 2 === 0).flatMap((turned) =>
          [false, true].map((flipped) => ({ sheet, turned, flipped })),
        ),
      ),
    ];
    for (const way of ways) {
      const more = system.rowsOf([{ machine, points: sample, ...way }]).rows;
      // Of what is not seen yet, how much these rows see.
      const settles = rankOf(more.map((row) => unseen.map((direction) => dot(row, direction))));
      if (settles > 0) tried.push({ machine, ...way, settles });
    }
  }
  // Turning is less work than taking a sheet to another machine; a bed that can be read bare is the surest.
  return tried
    .sort((p, q) => q.settles - p.settles || +p.flipped - +q.flipped || p.turned - q.turned)
    .slice(0, MOST_NEXT);
}

/** Singular values below this are what rounding leaves of rows of length one. */
const NOTHING = 1e-6;
const rankOf = (rows: readonly (readonly number[])[]) =>
  singularOf(rows).values.filter((value) => value > NOTHING).length;
