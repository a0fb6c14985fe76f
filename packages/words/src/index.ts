export { bookSentence, type Names } from './book';
export { counted, figuresFor, type Figures, type Reader } from './figures';
export { HOLD_NAMES, sideInWords, spanInWords } from './surfaces';
