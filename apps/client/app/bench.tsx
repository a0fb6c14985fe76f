export { BenchScreen as default } from '../src/rounds/BenchScreen';
