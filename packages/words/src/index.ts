export { bookSentence, type Names } from './book';
export type { Reader } from './figures';
