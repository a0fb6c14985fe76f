export { default } from '../src/shell/AppFrame';
