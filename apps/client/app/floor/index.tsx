export { FloorScreen as default } from '../../src/fleet/FloorScreen';
