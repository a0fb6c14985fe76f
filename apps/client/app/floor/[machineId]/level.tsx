export { LevelsScreen as default } from '../../../src/level/LevelsScreen';
