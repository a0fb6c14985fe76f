export { StripsScreen as default } from '../../src/level/StripsScreen';
