export { RackRoom as default } from '../../src/shell/RackRoom';
