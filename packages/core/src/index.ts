export { CORE_VERSION } from './version';
export { readLength } from './fleet/readLength';
export { compareRounds, type RoundAnswer, type RoundComparison } from './level/compareRounds';
export { smallMap, type SmallMap } from './level/smallMap';
export { contourBed, type BedContours, type ContourBand } from './level/contourBed';
export { roundTurn, turnStep } from './level/roundTurn';
export { DegenerateAdjusters, DegenerateInput, UnreadableHeights } from './level/errors';
export { AIM_WITH_COMPENSATION, AIM_WITHOUT_COMPENSATION, firstLayerAim } from './level/firstLayerAim';
export { fitPlane, type PlaneFit } from './level/fitPlane';
export { gridOf, pointsOf } from './level/gridOf';
export { extentOf, spreadOf, type Extent, type HeightGrid, type HeightPoint, type Spread } from './level/HeightPoint';
export type { Limit } from './level/limitOf';
export { LONGEST_TEXT } from './level/longestText';
export type {
  LineWarning,
  MatrixNeed,
  ParsedHeights,
  ParseOptions,
  QuestionCode,
  ReadingQuestion,
} from './level/heightReading';
export { parseHeights } from './level/parseHeights';
export {
  planTurns,
  type Adjuster,
  type PlannedTurn,
  type PlanTurnsInput,
  type PlanVerdict,
  type TurnPlan,
} from './level/planTurns';
export {
  planRound,
  reckonRound,
  type LevelSetup,
  type RawReading,
  type Reckoning,
  type ReadingWay,
  type TurnMade,
} from './level/reckonRound';
export { repeatability } from './level/repeatability';
export { lookingDown, turnsAsSeen, type SeenFrom } from './level/seenFrom';
export { stiffBed, type BedMove, type Position } from './level/stiffBed';
export { pitchOf, THREADS, turnsFor, type Thread } from './level/threads';
export { dueState, nextDue, type DueState } from './rounds/nextDue';
export {
  checkMount,
  type MountAsk,
  type MountCaution,
  type MountCheck,
  type MountedLayer,
  type MountRefusal,
} from './surfaces/checkMount';
export { lifeOf, type LifeLeft } from './surfaces/lifeOf';
export { predictOffset, type KnownOffset, type OffsetPrediction, type OffsetQuestion } from './surfaces/predictOffset';
export { stackHeight, type StackLayer } from './surfaces/stackHeight';
export {
  GROUPS,
  nextTag,
  SLOTS,
  groupFacts,
  slotOf,
  SURFACE_GROUPS,
  tagLetter,
  type Life,
  type QuarterTurn,
  type Side,
  type Slot,
  type SurfaceGroup,
} from './surfaces/surfaceKind';
export {
  applySurfaceEvent,
  ImpossibleEvent,
  isHeld,
  replaySurface,
  surfaceCondition,
  type Hold,
  type HoldKind,
  type SurfaceCondition,
  type SurfaceEvent,
  type SurfaceState,
  type SurfaceWork,
} from './surfaces/surfaceState';
export { takeBack, type RecordedEvent } from './surfaces/takeBack';
export { checkInspection, INSPECTION_CARDS, type InspectionCard } from './care/inspectionCards';
export { PLACE_WORDS, placesInWords, PLATE_PLACES, type PlatePlace } from './wear/platePlaces';
export {
  FAILURE_WORDS,
  FAILURES,
  RELEASE_WORDS,
  RELEASES,
  type PrintFailure,
  type PrintRelease,
} from './wear/printWords';
export {
  guessColumns,
  NEEDED_COLUMNS,
  PRINT_COLUMNS,
  readPrintLine,
  type ColumnMatch,
  type GuessedMatch,
  type PrintColumn,
  type PrintLine,
  type ReadPrint,
} from './wear/readPrintLine';
export { LABEL_SHEETS, labelPlaces, type LabelPlace, type LabelSheet } from './surfaces/labelSheet';
export {
  compatibility,
  FACES,
  printedOf,
  type CompatAnswer,
  type CompatReason,
  type CompatQuestion,
  type Face,
} from './fit/compatibility';
export { calibrateSoak, type SoakCalibration } from './fit/calibrateSoak';
export { countersink, type Countersink } from './fit/countersink';
export { fitCheck, skewOver, type FitCheck, type FitCheckInput, type PlateRect } from './fit/fitCheck';
export { layerMass } from './fit/layerMass';
export type { Cut, CutTree, PlacedPiece } from './fit/cutTree';
export { MATERIALS, materialNamed, materialOf, type Material } from './fit/materials';
export { padsFor, type PadLayout } from './fit/padsFor';
export { planBlanks, type Blank, type BlankLayout, type BlankPlan, type PlanBlanksInput } from './fit/planBlanks';
export { coolDown, setpointForTop, soak, type Soak, type SoakInput } from './fit/soak';
export {
  stackChange,
  type AdjusterRange,
  type FitLayer,
  type StackChange,
  type StackChangeInput,
  type ZFinding,
} from './fit/stackChange';
export type { Metal } from './fit/inductiveProbe';
export type { Home, Moves, StackStep, StackUnknown } from './fit/stackStep';
export { wholeLayers, type WholeLayers } from './fit/wholeLayers';
export { topClearance, type StandingItem, type TopClearanceInput, type TopCure } from './fit/topClearance';
export type { StackCaution, StackCautionCode } from './fit/stackCautions';
export { underbedClearance, type UnderbedClearance, type UnderbedInput } from './fit/underbedClearance';
export { WASHERS, washersFor } from './fit/washers';
export { toolAnswer, type ToolAnswers } from './fit/toolAnswer';
export { TOOLS, type ToolId, type ToolInputs } from './fit/toolInputs';
export { checkProcedure, combinations, type ProcedureFault } from './care/checkProcedure';
export { DONE, STOPPED, type Procedure, type ProcedureStep, type StepEffect } from './care/procedure';
export { PROCEDURES } from './care/procedures';
export { learnAdjusters, type AdjusterLearned, type AdjusterWay } from './level/learnAdjusters';
export { RUN_MANNERS, type RunManner } from './care/runCard';
export type { FoundLayer } from './care/stackAfter';
export {
  applyRunEvent,
  beginRun,
  effectsOf,
  progressOf,
  readyAt,
  replayRun,
  RunRefusal,
  stepOf,
  straightWay,
  timerOf,
  type ResolvedEffect,
  type RunEvent,
  type RunSetup,
  type RunState,
} from './care/runProcedure';
export type { SkirtAdvice, SkirtMove, SkirtRound } from './level/skirtTrim';
export type { LevelNoteRaw, LevelNoteResult, NoteWay } from './level/levelNote';
export type { LevelDrift, LookAgain, LookReason, MeasuredLevel } from './level/levelDrift';
export type { ZeroExpiry, ZeroStands } from './level/zeroStands';
export type { BedShape, ShapeName, ShapePart } from './level/describeShape';
export type { Flatness } from './level/flatness';
export type { LapProgress, LapRound, LapPlace } from './level/lapProgress';
export type { LightLine, LightSurvey, LitStretch, SurveyLineId } from './level/lightSurvey';
export type { ShimPlan, ShimStrip, ShimTape } from './level/planShims';
export type { ShapeKind, ShapeRaw, ShapeResult } from './level/shapeRecord';
export { compareFirstLayer } from './level/compareFirstLayer';
export { describeShape } from './level/describeShape';
export { flatness } from './level/flatness';
export { planShims } from './level/planShims';
