export { RackScreen as default } from '../../src/surfaces/RackScreen';
