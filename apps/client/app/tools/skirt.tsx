export { SkirtScreen as default } from '../../src/level/SkirtScreen';
