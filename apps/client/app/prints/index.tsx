export { PrintsScreen as default } from '../../src/wear/PrintsScreen';
