export { TopTool as default } from '../../src/fit/TopTool';
