export { FloorScreen as default } from '../../src/floor/FloorScreen';
