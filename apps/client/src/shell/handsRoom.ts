// What hands do: checks, jobs, tools. One piece of code, fetched when the first of these views opens: what they share would
// otherwise be fetched with every page.
export { PaperScreen } from '../care/PaperScreen';
export { ProcedureScreen } from '../care/ProcedureScreen';
export { StartJobScreen } from '../care/StartJobScreen';
export { BlanksTool } from '../fit/BlanksTool';
export { CompareTool } from '../fit/CompareTool';
export { GapTool } from '../fit/GapTool';
export { SizeTool } from '../fit/SizeTool';
export { SoakTool } from '../fit/SoakTool';
export { SpacerTool } from '../fit/SpacerTool';
export { StackTool } from '../fit/StackTool';
export { TogetherTool } from '../fit/TogetherTool';
export { TopTool } from '../fit/TopTool';
export { UnderbedTool } from '../fit/UnderbedTool';
export { FeelScreen } from '../level/FeelScreen';
export { FeetScreen } from '../level/FeetScreen';
export { LapScreen } from '../level/LapScreen';
export { LayerScreen } from '../level/LayerScreen';
export { LevelCheckScreen } from '../level/LevelCheckScreen';
export { LevelsScreen } from '../level/LevelsScreen';
export { LightScreen } from '../level/LightScreen';
export { MapsScreen } from '../level/MapsScreen';
export { PracticeScreen } from '../level/PracticeScreen';
export { ShapeScreen } from '../level/ShapeScreen';
export { SkirtScreen } from '../level/SkirtScreen';
export { StripsScreen } from '../level/StripsScreen';
export { JobPage } from './JobPage';
