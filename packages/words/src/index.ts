export { bookSentence, type Names } from './book';
export { mountAskWords, mountCautionWords, mountRefusalWords } from './mount';
export type { Reader } from './figures';
