export { StackTool as default } from '../../src/fit/StackTool';
