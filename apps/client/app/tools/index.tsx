export { ToolsScreen as default } from '../../src/fit/ToolsScreen';
