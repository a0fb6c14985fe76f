import type { MachineFacts, MachineOverview } from '@even-bed/contract';
import { MOTOR_THREAD } from '@even-bed/core/level/plainAdjuster';
import { pitchOf } from '@even-bed/core/level/threads';

/** Under this name the device keeps what is typed. */
export const MACHINE_FORMS = 'machine-form';

/** An adjuster as the form holds it: numbers as typed. */
export interface AdjusterForm {
  id: string;
  name: string;
  x: string;
  y: string;
  thread: string;
  pitch: string;
  clockwise: 'raises' | 'lowers';
}

/** A machine as the form holds it: numbers as typed, so that nothing is lost or rounded while typing. */
export interface MachineForm {
  name: string;
  areaId: string;
  newArea: string;
  shelf: string;
  model: string;
  family: MachineFacts['family'];
  plateWidth: string;
  plateDepth: string;
  printWidth: string;
  printDepth: string;
  originX: string;
  originY: string;
  adjusters: AdjusterForm[];
  seenFrom: MachineFacts['seenFrom'];
  compensation: 'on' | 'off';
  firstLayer: string;
  aim: string;
  finding: MachineFacts['finding'];
  plus: MachineFacts['plus'];
  mapX0: string;
  mapY0: string;
  mapX1: string;
  mapY1: string;
  mapFirstRow: 'front' | 'rear' | 'unknown';
  hasConsole: 'yes' | 'no';
  host: string;
  port: string;
  scanCommand: string;
  bedTemperature: string;
  simulated: boolean;
  hottest: string;
  platformKey: string;
  tag: string;
  note: string;
}

export const EMPTY_FORM: MachineForm = {
  name: '',
  areaId: '',
  newArea: '',
  shelf: '',
  model: '',
  family: 'filament',
  plateWidth: '235',
  plateDepth: '235',
  printWidth: '220',
  printDepth: '220',
  originX: '',
  originY: '',
  adjusters: [],
  seenFrom: 'above',
  compensation: 'on',
  firstLayer: '0.2',
  aim: '',
  finding: 'contact-probe',
  plus: 'higher',
  mapX0: '',
  mapY0: '',
  mapX1: '',
  mapY1: '',
  mapFirstRow: 'unknown',
  hasConsole: 'no',
  host: '',
  port: '',
  scanCommand: 'G29',
  bedTemperature: '60',
  simulated: false,
  hottest: '',
  platformKey: '',
  tag: '',
  note: '',
};

const text = (value: number) => String(Number(value.toFixed(4)));

export function formOf(machine: MachineOverview): MachineForm {
  const { mapExtent: extent, console: address } = machine;
  return {
    ...EMPTY_FORM,
    name: machine.name,
    areaId: machine.areaId,
    shelf: machine.shelf,
    model: machine.model,
    family: machine.family,
    plateWidth: text(machine.plateWidth),
    plateDepth: text(machine.plateDepth),
    printWidth: text(machine.printWidth),
    printDepth: text(machine.printDepth),
    originX: text(machine.originX),
    originY: text(machine.originY),
    adjusters: machine.adjusters.map(({ x, y, pitch, ...rest }) => ({
      ...rest,
      x: text(x),
      y: text(y),
      pitch: text(pitch),
    })),
    seenFrom: machine.seenFrom,
    compensation: machine.compensation ? 'on' : 'off',
    firstLayer: text(machine.firstLayer),
    aim: machine.aim === null ? '' : text(machine.aim),
    finding: machine.finding,
    plus: machine.plus,
    ...(extent
      ? { mapX0: text(extent.x0), mapY0: text(extent.y0), mapX1: text(extent.x1), mapY1: text(extent.y1) }
      : {}),
    mapFirstRow: machine.mapFirstRow ?? 'unknown',
    ...(address
      ? {
          hasConsole: 'yes' as const,
          host: address.host,
          port: String(address.port),
          scanCommand: address.scanCommand,
          bedTemperature: text(address.bedTemperature),
          simulated: address.simulated,
        }
      : {}),
    hottest: machine.hottest === null ? '' : text(machine.hottest),
    platformKey: machine.platformKey == null ? '' : text(machine.platformKey),
    tag: machine.tag,
    note: machine.note,
  };
}

/** The form as the contract wants it; lengths stay as typed, the contract reads them. Empty margins are centred. */
export function factsOf(
  form: MachineForm,
  centredMargin: (plate: string, print: string) => string,
): Record<string, unknown> {
  const extent = [form.mapX0, form.mapY0, form.mapX1, form.mapY1];
  const aPort = Number(form.port);
  return {
    name: form.name,
    areaId: form.areaId,
    shelf: form.shelf,
    model: form.model,
    family: form.family,
    plateWidth: form.plateWidth,
    plateDepth: form.plateDepth,
    printWidth: form.printWidth,
    printDepth: form.printDepth,
    originX: form.originX.trim() || centredMargin(form.plateWidth, form.printWidth),
    originY: form.originY.trim() || centredMargin(form.plateDepth, form.printDepth),
    adjusters: form.adjusters.map((adjuster) =>
      adjuster.thread === MOTOR_THREAD
        ? { ...adjuster, pitch: '1', clockwise: 'raises' as const }
        : { ...adjuster, pitch: pitchOf(adjuster.thread) ?? adjuster.pitch },
    ),
    seenFrom: form.seenFrom,
    compensation: form.compensation === 'on',
    firstLayer: form.firstLayer,
    aim: form.aim.trim() === '' ? null : form.aim,
    finding: form.finding,
    plus: form.plus,
    mapExtent: extent.every((value) => value.trim() === '')
      ? null
      : { x0: form.mapX0, y0: form.mapY0, x1: form.mapX1, y1: form.mapY1 },
    mapFirstRow: form.mapFirstRow === 'unknown' ? null : form.mapFirstRow,
    console:
      form.hasConsole === 'no'
        ? null
        : {
            host: form.host,
            port: form.port.trim() === '' || Number.isNaN(aPort) ? form.port : aPort,
            simulated: form.simulated,
            scanCommand: form.scanCommand,
            bedTemperature: Number(form.bedTemperature.replace(',', '.')),
          },
    platformKey: form.platformKey.trim() === '' ? null : form.platformKey,
    hottest: form.hottest.trim() === '' ? null : Number(form.hottest.replace(',', '.')),
    tag: form.tag.trim(),
    note: form.note,
  };
}

export type AdjusterPattern = 'four' | 'three-rear' | 'three-front' | 'none';

/** Usual places of adjusters, inset from the print area by `inset` mm. */
export function adjusterPattern(pattern: AdjusterPattern, width: number, depth: number, inset = 15): AdjusterForm[] {
  const knob = (name: string, x: number, y: number): AdjusterForm => ({
    id: name,
    name,
    x: text(x),
    y: text(y),
    thread: 'M4',
    pitch: '0.7',
    clockwise: 'lowers',
  });
  const [left, right, front, rear] = [inset, width - inset, inset, depth - inset];
  switch (pattern) {
    case 'four':
      return [
        knob('front-left', left, front),
        knob('front-right', right, front),
        knob('rear-left', left, rear),
        knob('rear-right', right, rear),
      ];
    case 'three-rear':
      return [knob('front-left', left, front), knob('front-right', right, front), knob('rear', width / 2, rear)];
    case 'three-front':
      return [knob('front', width / 2, front), knob('rear-left', left, rear), knob('rear-right', right, rear)];
    case 'none':
      return [];
  }
}
