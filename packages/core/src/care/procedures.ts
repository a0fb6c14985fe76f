import type { Procedure } from './procedure';
import { baseOnGlass } from './procedures/baseOnGlass';
import { checkPlate } from './procedures/checkPlate';
import { lapPlatform } from './procedures/lapPlatform';
import { cutGlass, cutLaminate } from './procedures/cutting';
import { fitFilm, replaceAndRetire } from './procedures/filmAndRetire';
import { fitBaseAndSheet } from './procedures/fitBaseAndSheet';
import { fitFlexOnResin, rehearsePlatform } from './procedures/fitFlexOnResin';
import { freePrint } from './procedures/freePrint';
import { laminateFilm, renewFilm } from './procedures/laminateFilm';
import { magnetUnderBoard } from './procedures/magnetUnderBoard';
import { levelResin } from './procedures/levelResin';
import { mountGlass } from './procedures/mountGlass';
import { firstPrint, firstPrintResin, prepareSheet } from './procedures/prepareAndPrint';
import { removeOldSurface } from './procedures/removeOldSurface';
import { trimMagnet } from './procedures/trimMagnet';
import { countersinkScrews, underBedCheck } from './procedures/underAndOver';

/** The jobs that ship with the shop, in the order in which work asks for them. Source: common practice. */
export const PROCEDURES: readonly Procedure[] = [
  removeOldSurface,
  checkPlate,
  lapPlatform,
  fitBaseAndSheet,
  prepareSheet,
  firstPrint,
  freePrint,
  fitFlexOnResin,
  rehearsePlatform,
  levelResin,
  firstPrintResin,
  fitFilm,
  laminateFilm,
  renewFilm,
  mountGlass,
  baseOnGlass,
  trimMagnet,
  magnetUnderBoard,
  cutGlass,
  cutLaminate,
  countersinkScrews,
  underBedCheck,
  replaceAndRetire,
];
