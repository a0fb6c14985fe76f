export { SurfaceFormScreen as default } from '../../src/surfaces/SurfaceFormScreen';
