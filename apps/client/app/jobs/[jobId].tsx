export { JobPage as default } from '../../src/shell/JobPage';
