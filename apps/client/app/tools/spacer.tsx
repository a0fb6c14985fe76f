export { SpacerTool as default } from '../../src/fit/SpacerTool';
