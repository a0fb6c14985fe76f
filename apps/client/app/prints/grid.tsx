export { PrintGridScreen as default } from '../../src/wear/PrintGridScreen';
