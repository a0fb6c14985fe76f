export { SoakTool as default } from '../../src/fit/SoakTool';
