export { UnderbedTool as default } from '../../src/fit/UnderbedTool';
