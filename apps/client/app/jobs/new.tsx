export { StartJobScreen as default } from '../../src/care/StartJobScreen';
