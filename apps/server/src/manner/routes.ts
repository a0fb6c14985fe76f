import { settingsWriteSchema, type SettingsWrite } from '@even-bed/contract';
import type { Route } from '../kernel/route';
import { saveSettings, shopSettings } from './store';

export const mannerRoutes: Route[] = [
  {
    method: 'get',
    path: '/settings',
    area: 'shop',
    access: 'looker',
    summary: 'How the shop reads and works',
    answers: 'The settings.',
    handle: async ({ db }) => ({ body: await shopSettings(db) }),
  },
  {
    method: 'put',
    path: '/settings',
    area: 'shop',
    access: 'lead',
    summary: 'Change the settings',
    answers: 'The settings.',
    body: settingsWriteSchema,
    handle: async ({ db, body }) => ({ body: await saveSettings(db, body as SettingsWrite) }),
  },
];
