import type { ToolId, ToolInputs } from '@even-bed/core';
import type { Typed } from './toolForm';

/** What stands in each tool when it is first opened: made-up, common sizes, to be typed over. */
export const EXAMPLES: { [T in ToolId]: Typed<ToolInputs[T]> } = {
  stack: {
    before: [
      { name: 'plate', thickness: '3', metal: 'aluminium' },
      { name: 'glass', thickness: '3.8', metal: '' },
    ],
    after: [
      { name: 'plate', thickness: '3', metal: 'aluminium' },
      { name: 'base', thickness: '1.3', limit: '105', metal: '' },
      { name: 'spring sheet', thickness: '0.45', limit: '115', metal: 'steel' },
    ],
    finding: { by: 'stop-screw', pitch: '0.5', clockwise: 'sooner' },
    family: 'filament',
    moves: '',
    home: '',
    adjusters: { up: '2', down: '3' },
    spacerLayer: '0.16',
    buildHeight: '',
    slack: '',
  } as unknown as Typed<ToolInputs['stack']>,
  underbed: {
    parts: [
      { name: 'cable bracket', height: '6.4' },
      { name: 'cork mat', height: '4.1' },
    ],
    springCompressed: '9.8',
    washers: '0',
    screw: 'M3',
    pitch: '0.5',
    backOff: '0',
    travel: '',
  },
  top: {
    items: [
      { name: 'rear clip', kind: 'clip', height: '2.3', beside: false },
      { name: 'plate screw', kind: 'screw', height: '1.8', beside: false, thread: 'M3', hole: '3.3' },
    ],
    base: '1.3',
    sheet: '0.45',
    plate: '3',
    passes: [{ name: 'fan duct', above: '2.2' }],
    travel: '0',
  },
  size: {
    plate: { width: '242', depth: '238' },
    print: { x: '6', y: '7', width: '228', depth: '224' },
    piece: { width: '240', depth: '236', x: '', y: '' },
    notches: [],
    keepOuts: [{ name: 'front-left knob', x: '0', y: '0', width: '11', depth: '11' }],
    pad: null,
  } as unknown as Typed<ToolInputs['size']>,
  blanks: {
    sheet: { width: '420', depth: '330' },
    pieces: [{ name: '', width: '142', depth: '118', count: '', corners: '0' }],
    kerf: '1',
    trim: '0',
    method: 'snap',
    mayRotate: true,
    sheets: '1',
    price: '',
  },
  soak: {
    layers: [
      { material: 'aluminium', thickness: '3', dry: false },
      { material: 'base', thickness: '1.3', dry: false },
      { material: 'steel', thickness: '0.45', dry: false },
    ],
    flux: '3800',
    setpoint: '95',
    ambient: '19',
    loss: '12',
    within: '2',
  },
  together: { face: 'smooth-pei', limit: '', printed: 'petg', heat: '' } as Typed<ToolInputs['together']>,
  spacer: {
    shape: 'pad',
    thickness: '2.3',
    layer: '0.16',
    depth: '18',
    width: '11',
    hole: '3.3',
  } as Typed<ToolInputs['spacer']>,
};
