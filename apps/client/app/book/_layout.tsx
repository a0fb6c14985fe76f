export { BookRoom as default } from '../../src/shell/BookRoom';
