export { EntryScreen as default } from '../../src/book/EntryScreen';
