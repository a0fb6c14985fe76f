export { bookSentence, type Names } from './book';
export { mountAskWords, mountCautionWords, mountRefusalWords } from './mount';
export { stackCautionWords, stackSentence, stackStepWords, type StackFacts } from './stack';
export { toolSentence, topCureWords } from './tool';
export type { Reader } from './figures';
