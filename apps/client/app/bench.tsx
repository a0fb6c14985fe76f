export { BenchPage as default } from '../src/shell/BenchPage';
