export { JobScreen as default } from '../../src/care/JobScreen';
