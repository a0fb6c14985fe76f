import modeling from '@jscad/modeling';
import { needNumbers } from '../needNumbers';
import { meshOf, type Mesh } from '../fit/solidFile';
import { largestPad, PAD_EDGE, padPlaces, type Pad, type PadPlaces } from './padPlaces';

const { primitives, transforms } = modeling;

export interface FirstLayerPrintAsk {
  /** Where the machine can print, mm, and how high. */
  print: { x: number; y: number; width: number; depth: number };
  height: number;
  /** Middles of the pads, mm. */
  places: readonly { x: number; y: number }[];
  pad: number;
  layer: number;
  /** Width of a line, mm. */
  line: number;
  filament: number;
  nozzle: number;
  bed: number;
  /** °C of the hottest bed that the machine has, or null. */
  hottest: number | null;
  /** The machine's own command that switches compensation off after homing; null: it is switched off by hand, or it stays on. */
  offCommand: string | null;
  compensation: 'on' | 'off';
}

export interface FirstLayerPrint extends PadPlaces {
  gcode: string;
  /** Filament, mm, and minutes of printing, without warming. */
  filament: number;
  minutes: number;
}

/** Bounds of what is written into a file that heats and moves. Our own. */
const NOZZLE = { least: 160, most: 300 };
const BED = { least: 0, most: 130 };
const SPEED = 20;
const TRAVEL = 100;
const LIFT = 2;
const RETRACT = 1;
const PRIME_LENGTH = 60;

/**
 * A test print of one-layer pads, as G-code: warm the bed, warm the nozzle without dripping, home, prime along the front edge,
 * pads by lines side by side, then up and off with the heat.
 *
 * Words and codes are those of numerical control (G0, G1, G21, G28, G90, G92, M0) and the common codes of extruders; no command of
 * one kind of machine is written but the one that the shop gives.
 * @throws RangeError sizes and temperatures that are not safe, a command with more than letters, figures, dots, signs and blanks
 * Source: ISO 6983-1:2009 for the format and the preparatory functions (from memory); extruder codes common practice.
 */
export function firstLayerPrint(ask: FirstLayerPrintAsk): FirstLayerPrint {
  needNumbers('firstLayerPrint', ask);
  const { print, pad, layer, line, filament, nozzle, bed, hottest } = ask;
  const between = (what: string, value: number, least: number, most: number) => {
    if (!(value >= least && value <= most))
      throw new RangeError(`firstLayerPrint needs ${what} from ${least} to ${most}, got ${value}`);
  };
  between('a print area at least 70 mm wide', print.width, 70, 2000);
  between('a print area at least 40 mm deep', print.depth, 40, 2000);
  between('a build height', ask.height, 30, 3000);
  between('pads', pad, 8, 60);
  between('a layer', layer, 0.08, 0.6);
  between('a line', line, 0.2, 1.5);
  between('a line wider than its layer', line / layer, 1, 10);
  between('filament', filament, 1, 4);
  between('a nozzle, in °C,', nozzle, NOZZLE.least, NOZZLE.most);
  between('a bed, in °C,', bed, BED.least, Math.min(BED.most, hottest ?? BED.most));
  if (ask.places.length === 0 || ask.places.length > 60)
    throw new RangeError(`firstLayerPrint needs 1 to 60 places, got ${ask.places.length}`);
  const { offCommand } = ask;
  if (offCommand !== null && !/^[A-Za-z][A-Za-z0-9 ._=-]{0,40}$/.test(offCommand))
    throw new RangeError('firstLayerPrint needs a command of letters, figures, blanks, dots, signs, at most 41');

  if (offCommand !== null && movesOrHeats(offCommand))
    throw new RangeError(`firstLayerPrint needs a command that neither moves, homes nor heats, got ${offCommand}`);
  between('a pad that finds room beside the priming line', pad, 8, largestPad(print, line));

  const { pads, left } = padPlaces(ask);
  const program = new Program(ask);
  program.begin();
  for (const one of pads) program.pad(one);
  program.end();
  return { gcode: program.text(), pads, left, filament: program.extruded, minutes: program.seconds / 60 };
}

/** M codes that heat, cool, cut or give power, stop, or take a guard away. Common practice. */
const NEVER_M = [
  0, 1, 2, 3, 4, 5, 17, 18, 30, 80, 81, 84, 104, 106, 107, 109, 112, 140, 141, 190, 191, 206, 211, 302, 303,
];

/** Whether a command may move, home or heat: all G codes, such M codes, and words that name an axis or a temperature in digits. */
function movesOrHeats(command: string): boolean {
  const [code, ...words] = command.trim().toUpperCase().split(/\s+/);
  if (/^[GT]\d/.test(code!)) return true;
  const m = /^M0*(\d+)/.exec(code!);
  if (m && NEVER_M.includes(Number(m[1]))) return true;
  // Several codes on one line, or run together.
  return /\d[GM]\d/.test(code!) || words.some((word) => /^[GMTXYZEF]-?[\d.]/.test(word));
}

class Program {
  private readonly lines: string[] = [];
  private at: { x: number; y: number };
  extruded = 0;
  seconds = 0;

  constructor(private readonly ask: FirstLayerPrintAsk) {
    this.at = { x: ask.print.x, y: ask.print.y };
  }

  text(): string {
    return `${this.lines.join('\n')}\n`;
  }

  /** Heat is rounded down: never above what was allowed. */
  begin(): void {
    const { ask } = this;
    const { print, bed, nozzle, layer, line } = ask;
    this.add(
      '; pads of one layer, to measure with calipers',
      `; layer ${fixed(layer)} mm, line ${fixed(line)} mm, compensation ${ask.compensation}`,
      'G21',
      'G90',
      'M83',
      `M140 S${Math.floor(bed)}`,
      // Not hot enough to drip while the bed warms and the machine homes.
      `M104 S${Math.min(150, Math.floor(nozzle))}`,
      'G28',
      'G0 Z10 F600',
    );
    if (ask.compensation === 'off')
      // Without a command the program stops (M0) until somebody has done it.
      this.add(
        ...(ask.offCommand
          ? [ask.offCommand]
          : ['; switch compensation off at the machine now, and do not home again', 'M0']),
      );
    const [x, y] = [print.x + PAD_EDGE, print.y + PAD_EDGE];
    this.add(
      `G0 X${fixed(x)} Y${fixed(y)} F${TRAVEL * 60}`,
      `M190 S${Math.floor(bed)}`,
      `M109 S${Math.floor(nozzle)}`,
      'G92 E0',
    );
    this.at = { x, y };
    this.add(`G0 Z${fixed(layer)} F300`);
    this.bead(x + Math.min(PRIME_LENGTH, print.width - 2 * PAD_EDGE), y);
    this.lift();
  }

  pad({ x0, y0, x1, y1 }: Pad): void {
    const { line, layer } = this.ask;
    const rows = Math.max(1, Math.floor((y1 - y0) / line));
    // Lines side by side, their outer edges on the pad's.
    const first = (y0 + y1) / 2 - ((rows - 1) * line) / 2;
    const [left, right] = [x0 + line / 2, x1 - line / 2];
    this.add(
      `G0 X${fixed(left)} Y${fixed(first)} F${TRAVEL * 60}`,
      `G0 Z${fixed(layer)} F300`,
      `G1 E${fixed(RETRACT, 4)} F1200`,
    );
    this.seconds += Math.hypot(left - this.at.x, first - this.at.y) / TRAVEL + 2;
    this.at = { x: left, y: first };
    for (let row = 0; row < rows; row++) {
      const y = first + row * line;
      if (row > 0) this.bead(this.at.x, y);
      this.bead(row % 2 === 0 ? right : left, y);
    }
    this.lift();
  }

  end(): void {
    const { print, height } = this.ask;
    this.add(
      'M104 S0',
      'M140 S0',
      `G0 Z${fixed(Math.min(height, 40))} F600`,
      `G0 X${fixed(print.x + PAD_EDGE)} Y${fixed(print.y + print.depth - PAD_EDGE)} F${TRAVEL * 60}`,
      'M84 X Y E',
      '; let it cool before the pads come off; measure each in its middle',
    );
  }

  private lift(): void {
    this.add(`G1 E-${fixed(RETRACT, 4)} F1800`, `G0 Z${fixed(this.ask.layer + LIFT)} F600`);
  }

  /** A line of plastic as wide and high as asked, of the volume that fills it. */
  private bead(x: number, y: number): void {
    const { line, layer, filament } = this.ask;
    const length = Math.hypot(x - this.at.x, y - this.at.y);
    const fed = (length * line * layer) / ((Math.PI / 4) * filament ** 2);
    this.add(`G1 X${fixed(x)} Y${fixed(y)} E${fixed(fed, 5)} F${SPEED * 60}`);
    this.extruded += fed;
    this.seconds += length / SPEED;
    this.at = { x, y };
  }

  private add(...lines: string[]): void {
    this.lines.push(...lines);
  }
}

const fixed = (value: number, digits = 3) => value.toFixed(digits);

/** The pads as a solid, for whoever prints from a model: one body a pad, as they lie on the plate. */
export function padSolid({ pads, layer }: { pads: readonly Pad[]; layer: number }): Mesh {
  if (pads.length === 0) throw new RangeError('padSolid needs at least 1 pad, got 0');
  const meshes = pads.map(({ x0, y0, x1, y1 }) =>
    meshOf(
      transforms.translate(
        [(x0 + x1) / 2, (y0 + y1) / 2, layer / 2],
        primitives.cuboid({ size: [x1 - x0, y1 - y0, layer] }),
      ),
    ),
  );
  const all: Mesh = { corners: [], triangles: [], edges: [] };
  for (const { corners, triangles, edges } of meshes) {
    const from = all.corners.length;
    all.corners.push(...corners);
    all.triangles.push(...triangles.map((one) => one.map((i) => i + from) as [number, number, number]));
    all.edges.push(...edges.map((one) => one.map((i) => i + from) as [number, number]));
  }
  return all;
}
