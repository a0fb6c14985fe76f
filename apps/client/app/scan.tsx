export { ScanScreen as default } from '../src/surfaces/ScanScreen';
