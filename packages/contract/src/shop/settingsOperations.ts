import type { ShopSettings } from './records';
import { operations } from '../kit/operation';

export interface SettingsAnswers {
  settings: ShopSettings;
  saveSettings: ShopSettings;
}

export const settingsOperations = operations<typeof import('./records'), SettingsAnswers>()('shop', {
  settings: {
    method: 'get',
    path: '/settings',
    access: 'looker',
    summary: 'How the shop reads and works',
    answers: 'The settings.',
    shows: ['Settings'],
  },
  saveSettings: {
    method: 'put',
    path: '/settings',
    access: 'lead',
    summary: 'Change the settings',
    answers: 'The settings.',
    body: 'settingsWriteSchema',
    touches: ['Settings', 'Session', 'Book'],
  },
});
