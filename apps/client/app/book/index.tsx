export { BookScreen as default } from '../../src/book/BookScreen';
