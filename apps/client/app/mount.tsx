export { MountScreen as default } from '../src/surfaces/MountScreen';
