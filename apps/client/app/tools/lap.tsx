export { LapScreen as default } from '../../src/level/LapScreen';
