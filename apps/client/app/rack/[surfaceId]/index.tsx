export { SurfacePage as default } from '../../../src/shell/SurfacePage';
