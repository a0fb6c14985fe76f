export { JobsScreen as default } from '../../src/care/JobsScreen';
