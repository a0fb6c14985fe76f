export { SizeTool as default } from '../../src/fit/SizeTool';
