import { jobRoutes } from '../care/jobRoutes';
import { careRoutes } from '../care/routes';
import { shopRoutes } from '../shop/routes';
import { wearRoutes } from '../wear/routes';
import { bookRoutes } from '../book/routes';
import { fitRoutes } from '../fit/routes';
import { fleetRoutes } from '../fleet/routes';
import { surfaceRoutes } from '../surfaces/routes';
import { peopleRoutes } from '../people/routes';
import { noteRoutes } from '../level/noteRoutes';
import { shapeRoutes } from '../level/shapeRoutes';
import { levelRoutes } from '../level/routes';
import { mannerRoutes } from '../manner/routes';
import { scanRoutes } from '../machines/routes';
import { ruleRoutes } from '../rounds/routes';
import type { Route } from '../kernel/route';

/** Every route of the API, by area. */
export const routes: readonly Route[] = [
  ...fleetRoutes,
  ...levelRoutes,
  ...noteRoutes,
  ...shapeRoutes,
  ...scanRoutes,
  ...ruleRoutes,
  ...bookRoutes,
  ...peopleRoutes,
  ...surfaceRoutes,
  ...wearRoutes,
  ...careRoutes,
  ...jobRoutes,
  ...fitRoutes,
  ...mannerRoutes,
  ...shopRoutes,
];
