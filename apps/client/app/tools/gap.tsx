export { GapTool as default } from '../../src/fit/GapTool';
