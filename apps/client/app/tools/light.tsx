export { LightScreen as default } from '../../src/level/LightScreen';
