export { PracticeScreen as default } from '../../src/level/PracticeScreen';
