export { KindsScreen as default } from '../src/surfaces/KindsScreen';
