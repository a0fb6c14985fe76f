export { LayerScreen as default } from '../../src/level/LayerScreen';
