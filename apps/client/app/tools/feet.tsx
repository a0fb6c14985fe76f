export { FeetScreen as default } from '../../src/level/FeetScreen';
