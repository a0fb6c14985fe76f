export { TagScreen as default } from '../../src/surfaces/TagScreen';
