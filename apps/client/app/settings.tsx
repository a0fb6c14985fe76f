export { SettingsScreen as default } from '../src/people/SettingsScreen';
