/** The usual cautions, each with the words that stand above the doing. Source: common practice. */
export const CAUTIONS = {
  hot: { title: 'Hot', text: 'Nozzle and bed burn. Let them cool below 43 °C before bare hands touch them.' },
  solvent: {
    title: 'Flammable',
    text: 'Bed off and cool before solvent comes near it. No flame, no sparks, air the room, gloves.',
  },
  mains: {
    title: 'Mains',
    text: 'Unplug before touching heater wiring. Mains work is for a qualified person; local codes and the shop’s rules come first.',
  },
  insulate: {
    title: 'Insulating washers go back',
    text: 'Leaving them out from under screw heads has shorted heaters and started fires.',
  },
  moving: {
    title: 'Moving parts',
    text: 'Belts and axes pinch. Move them slowly: pushed fast they feed current back into the electronics.',
  },
  blade: { title: 'Blades', text: 'Blade and scraper go away from you and from the other hand.' },
  magnet: { title: 'Magnets pinch', text: 'Strong magnets snap down: keep fingers out from under.' },
  glass: { title: 'Glass splinters', text: 'Eye protection and gloves. Sweep up before anything else is done.' },
  dust: {
    title: 'Dust',
    text: 'Fibreglass, aluminium and sanding dust: fitted respirator, outdoors or extraction, wet where possible.',
  },
  resin: {
    title: 'Resin',
    text: 'Gloves and eyes. Waste, wipes and slurry are disposed of as local rules say.',
  },
  bend: { title: 'Don’t bend the plate', text: 'Not with its heater attached, unless its maker allows it.' },
  belt: { title: 'Belt tail', text: 'Don’t trim a belt tail shorter than its clamp needs.' },
  once: {
    title: 'One chance',
    text: 'What touches down now does not come off again. Look once more before you go on.',
  },
  knock: {
    title: 'Stop at a knock',
    text: 'A knock or grind while homing: stop at once, power off. Something is driven into something.',
  },
} as const;

export type CautionId = keyof typeof CAUTIONS;
