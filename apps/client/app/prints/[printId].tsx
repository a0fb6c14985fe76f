export { PrintPage as default } from '../../src/shell/PrintPage';
