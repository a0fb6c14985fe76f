export { BlanksTool as default } from '../../src/fit/BlanksTool';
