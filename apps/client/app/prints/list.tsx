export { PrintListScreen as default } from '../../src/wear/PrintListScreen';
