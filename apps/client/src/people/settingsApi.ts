import { settingsOperations } from '@even-bed/contract/shop/settingsOperations';
import { endpointsOf } from '../api/endpoints';

export const settingsApi = endpointsOf(settingsOperations);

export const { useSettingsQuery, useSaveSettingsMutation } = settingsApi;
