export { LevelCheckScreen as default } from '../../src/level/LevelCheckScreen';
