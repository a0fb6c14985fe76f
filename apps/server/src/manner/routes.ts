import { settingsOperations } from '@even-bed/contract/shop/settingsOperations';
import * as schemas from '@even-bed/contract/shop/records';
import { routesOf } from '../kernel/route';
import { saveSettings, shopSettings } from './store';

export const mannerRoutes = routesOf(settingsOperations, schemas, {
  settings: async ({ db }) => ({ body: await shopSettings(db) }),
  saveSettings: async ({ db, body }) => ({ body: await saveSettings(db, body) }),
});
