export { ShapeScreen as default } from '../../src/level/ShapeScreen';
