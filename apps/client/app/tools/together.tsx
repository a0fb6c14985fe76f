export { TogetherTool as default } from '../../src/fit/TogetherTool';
