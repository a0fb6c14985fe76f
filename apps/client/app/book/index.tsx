export { BookIndex as default } from '../../src/shell/BookRoom';
