export { FeelScreen as default } from '../../src/level/FeelScreen';
