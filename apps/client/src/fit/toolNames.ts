import type { ToolId } from '@even-bed/core';
import type { Href } from 'expo-router';

export interface ToolName {
  id: ToolId;
  name: string;
  /** The question it answers. */
  asks: string;
  /** Other words people look for it by. */
  also: string;
}

/** The tools in the order in which the work asks for them. */
export const TOOL_NAMES: readonly ToolName[] = [
  {
    id: 'stack',
    name: 'Stack',
    asks: 'What has to move when the stack changes, before homing',
    also: 'height endstop flag screw spacer inductive probe z glass',
  },
  {
    id: 'size',
    name: 'Size',
    asks: 'How a sheet or pad lies on the real plate',
    also: 'margin overhang skew notch pad fit laminate',
  },
  {
    id: 'top',
    name: 'On top',
    asks: 'Clips, screw heads and tabs against the base',
    also: 'countersink clearance gantry',
  },
  {
    id: 'underbed',
    name: 'Under the bed',
    asks: 'What touches the bed from below, and which washers free it',
    also: 'washer spring clamp insulation bow',
  },
  {
    id: 'blanks',
    name: 'Blanks',
    asks: 'How many pieces a sheet gives, and which cut comes first',
    also: 'cutting glass saw kerf layout fibreglass sheet dxf svg',
  },
  {
    id: 'soak',
    name: 'Soak',
    asks: 'When the top is hot, and how hot it gets',
    also: 'heat temperature warm cool release thermometer',
  },
  {
    id: 'together',
    name: 'What goes with what',
    asks: 'Surface with material, solvent, abrasive, glue and heat',
    also: 'compatibility acetone alcohol petg scraper clean',
  },
  {
    id: 'spacer',
    name: 'Spacer',
    asks: 'A spacer or gauge to print, in whole layers',
    also: 'stl 3mf shim gauge block switch',
  },
  {
    id: 'gap',
    name: 'First gap, resin',
    asks: 'Where the first layer of a resin print will stand, and what zero wants',
    also: 'foot loose film paper zero jog squeeze platform raise',
  },
  {
    id: 'compare',
    name: 'Two compared',
    asks: 'Whether one way differs from another, by a rule fixed before it begins',
    also: 'method paper lock gauge surface difference experiment test statistics',
  },
];

/** Tools that are worked with the hands: they ask nothing that a plan could keep. */
export const HAND_TOOLS: readonly (Omit<ToolName, 'id'> & { id: string; href: Href })[] = [
  {
    id: 'feel',
    name: 'Paper and feel',
    asks: 'Which screw by how much, from what the paper feels like',
    also: 'level tram drag jam gap adjuster tighten',
    href: '/tools/feel',
  },
  {
    id: 'skirt',
    name: 'Trim by a skirt',
    asks: 'Which adjuster by a sixteenth, or the offset, while it prints',
    also: 'first layer gaps ridges lines squish',
    href: '/tools/skirt',
  },
  {
    id: 'shape',
    name: 'Flat or not',
    asks: 'How flat, of what shape, and what can be done about it',
    also: 'flatness dome dish twist bow ridge bump minimum zone cure',
    href: '/tools/shape',
  },
  {
    id: 'light',
    name: 'Light under a straightedge',
    asks: 'The plate rebuilt from where light shows along six lines',
    also: 'straightedge feeler flat bow lamp survey plate',
    href: '/tools/light',
  },
  {
    id: 'strips',
    name: 'Strips of tape',
    asks: 'Where shims go, how long, and how many on each other',
    also: 'shim aluminium foil tape dip valley layer',
    href: '/tools/strips',
  },
  {
    id: 'lap',
    name: 'Lap a platform',
    asks: 'Strokes counted, scratches read, rounds left',
    also: 'sand grit flat resin glass granite scratch dome',
    href: '/tools/lap',
  },
  {
    id: 'layer',
    name: 'First layer against the map',
    asks: 'Whether a machine follows its height map, by calipers',
    also: 'compensation mesh calipers thickness pads gcode stl test print',
    href: '/tools/layer',
  },
  {
    id: 'feet',
    name: 'The printer’s feet',
    asks: 'Whether resin lies even in the vat, by a level or this phone',
    also: 'spirit level tilt phone bubble stand table',
    href: '/tools/feet',
  },
  {
    id: 'practice',
    name: 'Practice bed',
    asks: 'Beds to learn on, each with something hidden',
    also: 'train learn lesson exercise score',
    href: '/tools/practice',
  },
];

export const toolName = (id: ToolId) => TOOL_NAMES.find((tool) => tool.id === id)!;
export const toolHref = (id: ToolId, planId?: string) => `/tools/${id}${planId ? `?plan=${planId}` : ''}` as Href;
