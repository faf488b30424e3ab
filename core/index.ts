export { BOUNDS, ID_PATTERN, isId } from "./formats/bounds";
export { compile } from "./kit/compile";
export { LAYOUT_PADS, parseLayout } from "./kit/layout";
export type { Layout } from "./kit/layout";
export { padMapSchema, STANDARD_AXES, STANDARD_BUTTONS } from "./kit/padMap";
export type { PadMap, PadSource } from "./kit/padMap";
export { findEditFault, parseKit, parseKitShape } from "./kit/parseKit";
export type {
  Control,
  Gate,
  Kit,
  Move,
  Pattern,
  PatternKind,
  PatternOf,
  Prompt,
  Step,
  Stick,
} from "./kit/schema";
export { CODE_PATTERN } from "./kit/schema";
export { answeredStretch } from "./kit/warnings";
export type { Issue, IssueCode, PathStep, Result } from "./formats/issue";
export { fault, formatPath } from "./formats/issue";
export { formatFinding, formatIssue } from "./formats/formatIssue";
export { dueFrame } from "./study/dueFrame";
export { indexOfId } from "./program/indexOfId";
export { listGateTurns, turnsOfGate } from "./trace/gateTurns";
export { directionName, gateName, nameIn, nameOf } from "./kit/names";
export { groupBy } from "./formats/groupBy";
export { countWords, cutLetters, joinNames, timesWords } from "./formats/words";
export { formatEventWords } from "./trace/eventWords";
export { lapseWords, lossNameWords } from "./trace/reasonWords";
export { arrowOf } from "./input/directions";
export { formatBinding, formatCode } from "./input/formatCode";
export { PATTERN_KIND_NAMES, recordOf, traitsOf } from "./patterns/recordOf";
export type { Rounding } from "./time/duration";
export type { AnsweredLengths, LengthEdge, PatternLever, PatternPull, PatternTraits } from "./patterns/kind";
export { PATTERN_KINDS } from "./patterns/kinds";
export { formatGrown, formatOutput, grownAt, levelAt, ratioAt, valueAt } from "./patterns/growth";
export type { Growth } from "./patterns/growth";
export { stepWords } from "./patterns/sequence/stepWords";
export { gateNamed, pressOf, stickOf } from "./kit/ingredients";
export type { Bundle, Starter, TakeId } from "./kit/starter";
export { parseShape } from "./formats/parseDocument";
export { FILE_LIMIT_BYTES, parseJson } from "./formats/parseJson";
export { idRecord } from "./formats/idRecord";
export { flag as flagSchema, id as idSchema, rate as rateSchema, text as textSchema } from "./kit/parts";
export { buffersOf, packTake, unpackGently, unpackTake, type PackedTake } from "./input/packTake";
export { parseTake } from "./input/parseTake";
export { parseTakes, takesDocument, type Takes, type UnreadTakes } from "./input/parseTakes";
export type { Lane, Take } from "./input/takeSchema";
export { countFrames, createInputCursor, loadInput, readTake, seekInput } from "./input/inputColumns";
export type { InputColumns, InputCursor } from "./input/inputColumns";
export { createFrameInput } from "./input/frameInput";
export type { FrameInput } from "./input/frameInput";
export { createLaneReader, readLane, readValue } from "./input/readLane";
export type { LaneReader } from "./input/readLane";
export { edgeKey, isOfPress, isPressKey, keyFrame, keySource } from "./program/program";
export type { KitProgram as Program, PatternProgram } from "./patterns/kinds";
export { evaluate, run, runInto, runOn } from "./run/run";
export {
  CARRIED,
  copyState,
  createState,
  FIRED,
  FORMING,
  HIDDEN,
  IDLE,
  LAPSED,
  OPEN,
  REQUEST_HEAD,
  SUSTAINED,
} from "./program/state";
export type { State } from "./program/state";
export { passOver, step } from "./run/step";
export { DURATION_PATTERN, formatMs, LONGEST_WRITTEN, parseFrames } from "./time/duration";
export { landingFrame, TICKS } from "./time/clock";
export { clockOfTrace, createGrowingClock, frameAtAge, framesBetween } from "./time/takeClock";
export type { GrowingClock, TakeClock } from "./time/takeClock";
export { evaluateEasing, parseEasing } from "./curve/easing";
export type { Easing } from "./curve/easing";
export { formatSmoothCurve } from "./curve/smooth";
export { eventNotes, notes, type EventName, type NoteName } from "./trace/noteKinds";
export { edgeCountOf, edgeOf, edgesOf } from "./trace/notes/edgeList";
export { isAnswered, promptOutcome } from "./trace/notes/prompt";
export type { PerformedBy, Trace } from "./trace/trace";
export {
  clearTrace,
  createTrace,
  FAILURES,
  firstNoteAfter,
  LOSS_REASONS,
  PARTS,
  PERFORMED_BY,
  rewindTrace,
} from "./trace/trace";
export { firstAbove, stretchAt } from "./time/rising";
export { formatEvent, formatPhasedEvent, formatPhasedTrace, formatTrace } from "./trace/formatTrace";
export type { PhasedTraceDocument, PhasedTraceEvent, TraceDocument, TraceEvent } from "./trace/traceSchema";
export { describeRule, type RuleList } from "./kit/describeRule";
export { gapFrames } from "./input/gapFrames";
export { formatSentence } from "./kit/sentence";
export type { Offer, Option, RefList, SentencePart, SwapOption } from "./kit/sentence";
export { describePattern, offerPattern } from "./patterns/describePattern";
export { describeMove, nameableGates, offerMove, openableGates } from "./moves/describeMove";
export { describeGate, offerGate } from "./gates/describeGate";
export { isOutputGate, outputGate } from "./kit/compileNames";
export { findBoundaries, type Boundary } from "./study/boundaries";
export { askedNow, promptPassed } from "./prompts/askedNow";
export { describePrompt, offerPrompt } from "./prompts/describePrompt";
export { describeSwitch } from "./modes/describeSwitch";
export type { Switch } from "./modes/describeSwitch";
export { listPatternSights, listPromptsFailedBy } from "./study/patternSights";
export type { PatternSight } from "./study/patternSights";
export { readMeter } from "./study/meter";
export type { Meter } from "./study/meter";
export { listLengths, type WrittenLength } from "./kit/lengths";
export { groupLanes } from "./input/groupLanes";
export { measureFirst } from "./formats/boundedList";
export { createRecord, ownValue } from "./formats/ownValue";
export { findLeaves, type AnySchema } from "./formats/walkSchema";
export { deleteAt, readAt, takeOut, writeAt } from "./kit/editAt";
export {
  isOfGate,
  lostMovesOf,
  explainingLoss,
  usersOf,
  type Fate,
  type Lapse,
  type Loss,
  type Use,
} from "./study/outcomes/fate";
export {
  createOutcomeReader,
  finishOutcomes,
  readOutcomes,
  type MoveRequest,
  type OutcomeReader,
  type TakeOutcomes,
} from "./study/outcomes/readOutcomes";
export {
  sumCounts,
  sumRuleCounts,
  totalOf,
  type MoveCounts,
  type CountedList,
  type PressCounts,
  type RuleCounts,
} from "./study/outcomes/ruleCounts";
export {
  formatMoveCounts,
  formatPatternCounts,
  formatPromptCounts,
  performedOf,
} from "./study/outcomes/formatCounts";
export { listMeanwhile, type Meanwhile } from "./study/meanwhile";
export { findFollowUp, listLinks, type FollowUp } from "./study/followUp";
export { diffTraces } from "./study/diffTraces";
export type { Difference } from "./study/diffTraces";
export { findRepairs, formatRepair, searchRepairs, type Repair, type RepairSearch } from "./study/repairs";
export type { JudgedCheck, PreparedKit, PrepareRun } from "./study/prepareRun";
export {
  createTrier,
  searchSmallest,
  type Lever,
  type SmallestChange,
  type TriedChange,
  type WantedPress,
} from "./study/tryChange";
export { readingKey } from "./input/readingKey";
export { findPrice, formatPrice } from "./study/price";
export type { Price, PriceKind, PriceLine, RunPair } from "./study/price";
export { formatFate } from "./study/formatFate";
export { largest } from "./study/largest";
export { DOCUMENT_SCHEMAS } from "./formats/schemas";
export { stageGate } from "./gates/stepGates";
export {
  EXPECTATION_NAMES,
  expectationOf,
  namesUnwanted,
  type Expectation,
  type ExpectationName,
  type WhyNot,
} from "./checks/expectations/kinds";
export type { AskedEvent, KeptEvent } from "./checks/askedEvent";
export type { Check, Checks } from "./checks/checksSchema";
export { changeCheckRate, renameInCheck } from "./checks/editCheck";
export { checksDocument, parseCheck, parseChecks } from "./checks/parseChecks";
export { compileCheck, type CheckJudge, type Verdict } from "./checks/compileCheck";
export { foreignWords } from "./input/foreignTake";
export { indexTrace, type TraceIndex } from "./checks/traceIndex";
export { listStory } from "./checks/story";
export { landLeeway, landTime } from "./checks/checkTimes";
export {
  appliesTo,
  compareResults,
  orderResults,
  ratesOf,
  type CheckResult,
  type ResultChanges,
  type ResultsDocument,
} from "./checks/results";
export { parseResults } from "./checks/parseResults";
export {
  listPressRows,
  PRESS_COLUMNS,
  type ColumnSort,
  type PressColumn,
  type PressRow,
} from "./study/pressRows";
export { describeCheck, describeEvent, offerCheck, type CheckNames } from "./checks/describeCheck";
export {
  askAgain,
  mustAnswer,
  mustHappen,
  mustNever,
  mustStay,
  type CheckBeginning,
} from "./checks/makeCheck";
export { formatVerdict } from "./checks/formatVerdict";
export { acceptFound, type Acceptance } from "./checks/acceptCheck";
export { listChanges, takeBackChange, type Change } from "./kit/listChanges";
export { assistsDocument, parseAssists, type Assists } from "./kit/parseAssists";
export { assistSchema, type Assist } from "./kit/assistSchema";
export { applyAssist, findAssist, scaleLength } from "./kit/applyAssist";
export { listNumbers, type KitNumber } from "./kit/listNumbers";
export { shareOf, type Share } from "./study/hands/wilson";
export {
  CHARACTERS,
  STILL,
  characterSchema,
  type Character,
  type ShippedCharacter,
} from "./study/hands/character";
export { findObstacleOf } from "./moves/readiness";
export { playHand } from "./study/hands/playHand";
export {
  studyRooms,
  MAX_SHIFT_FRAMES,
  TIGHT_FRAMES,
  type Miss,
  type Room,
  type Rooms,
  type RunFrom,
} from "./study/feel/rooms";
export { listDelays, type Delay } from "./study/feel/delays";
export { readOutcome, type Outcome, type OutcomeEvent } from "./study/sweep/readOutcome";
export { findEdges, sweepValues, type SweepEdges, type SweepQuestion } from "./study/sweep/sweepValues";
export { medianDelayOf, mergePoints, type SweepPoint } from "./study/sweep/sweepPoint";
export {
  listGroup,
  presentValue,
  SWEPT_GROUPS,
  writeSwept,
  type Swept,
  type SweptGroup,
} from "./study/sweep/swept";
export { alignStories, type AlignedEvent } from "./study/rates/alignStories";
export { roundLengths, type RoundedLength } from "./study/rates/roundLengths";
export {
  findOverlaps,
  type NoOverlap,
  type Overlap,
  type Overlaps,
  type Silent,
} from "./study/overlaps/findOverlaps";
export { studyHands, type HandsQuestion, type HandsResult, type PressShare } from "./study/hands/studyHands";
export {
  chooseGoal,
  qualifies,
  studyGoal,
  type GoalCell,
  type GoalPlace,
  type GoalQuestion,
  type HardestPress,
} from "./study/goal/studyGoal";
export { namesLosses } from "./study/equalBetween";
export type { Aims } from "./study/hands/aims";
export { fitCharacter, FITTED_NAME, type FittedCharacter } from "./study/hands/fitCharacter";
export { listOnsets } from "./study/hands/judgedPresses";
export type { FoundSpread } from "./study/hands/spread";
export { contrastGroups, formatContrast, type Contrast, type GroupFeel } from "./study/feel/contrast";
export {
  formatMoveFeel,
  formatTight,
  isTight,
  narrowerSide,
  reportMoves,
  type InTake,
  type MoveFeel,
  type TakeFeel,
} from "./study/feel/feelReport";
export { oneHandLayout } from "./kit/oneHand";
export { mappingSchema, parseMapping, type Mapping } from "./input/parseMapping";
