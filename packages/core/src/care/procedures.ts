import type { Procedure } from './procedure';
import { checkPlate } from './procedures/checkPlate';
import { cutGlass, cutLaminate } from './procedures/cutting';
import { fitFilm, replaceAndRetire } from './procedures/filmAndRetire';
import { fitBaseAndSheet } from './procedures/fitBaseAndSheet';
import { fitFlexOnResin } from './procedures/fitFlexOnResin';
import { laminateFilm } from './procedures/laminateFilm';
import { mountGlass } from './procedures/mountGlass';
import { removeOldSurface } from './procedures/removeOldSurface';
import { countersinkScrews, underBedCheck } from './procedures/underAndOver';

/** The jobs that ship with the shop, in the order in which work asks for them. Source: common practice. */
export const PROCEDURES: readonly Procedure[] = [
  removeOldSurface,
  checkPlate,
  fitBaseAndSheet,
  laminateFilm,
  fitFlexOnResin,
  mountGlass,
  cutGlass,
  cutLaminate,
  countersinkScrews,
  underBedCheck,
  fitFilm,
  replaceAndRetire,
];
