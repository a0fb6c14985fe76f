export { CompareTool as default } from '../../src/fit/CompareTool';
