export { PaperScreen as default } from '../../src/care/PaperScreen';
