export { RackIndex as default } from '../../src/shell/RackRoom';
