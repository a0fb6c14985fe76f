export { MapsScreen as default } from '../../../src/level/MapsScreen';
