export { TaughtScreen as default } from '../../../src/care/TaughtScreen';
