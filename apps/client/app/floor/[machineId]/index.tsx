export { MachinePage as default } from '../../../src/shell/MachinePage';
