/** The project: its shape, its checks, its file. */
export { isInOrder } from './isInOrder.js';
export {
  HOUSE_UNIT,
  PROJECT_VERSION,
  type Alignment,
  type BlindTrial,
  type Calibration,
  type Correction,
  type Crossovers,
  type DeviceChoice,
  type Family,
  type FloorAndEar,
  type FloorPart,
  type EnclosedFile,
  type Fixture,
  type OwnHead,
  type OwnMaterial,
  type OwnModel,
  type Underlay,
  type Headphones,
  type KnownDistance,
  type LevelCalibration,
  type LevelCheck,
  type ListeningChain,
  type Loudspeaker,
  type LoadVerdict,
  type MemoryLoad,
  type MemoryStamp,
  type Microphone,
  type NoiseReading,
  type PendingLoad,
  type Place,
  type Pointing,
  type ProcessorBefore,
  type ProcessorChoice,
  type Project,
  type ProjectArray,
  type RigSettings,
  type Round,
  type RoundTrip,
  type Seat,
  type Spot,
  type Step,
  type StepKeys,
  type Sweep,
  type Conditions,
  type Timing,
  type TrialCandidate,
  type Variant,
} from './types.js';
export { channelFindings, untellable, type Finding } from './channelFindings.js';
export {
  isCircular,
  keptById,
  LINE_STYLES,
  plainSweepLook,
  plainView,
  restsOn,
  type ComputedOrigin,
  type FileOrigin,
  type KeptTrace,
  type SweepLook,
  type LineStyle,
  type TraceView,
} from './kept.js';
export { newBench, type DeviceFigures, type ElectronicsBench } from './electronics.js';
export {
  LIBRARY_PLOTS,
  MOST_LOWER_PLOTS,
  plainLook,
  SMOOTHINGS,
  type KeptLook,
  type LibraryLook,
  type LibraryPlot,
  type Smoothing,
} from './libraryViews.js';
export { libraryLook } from './librarySchema.js';
export { isAsItWas, lookOf, withLook } from './traceLook.js';
export { newReading, nothingPublished, type Reading } from './readings.js';
export {
  newLive,
  type GeneratorChoice,
  type LiveCalibration,
  type LiveOrigin,
  type LiveRecord,
  type PlannedMeasurement,
  type SpectrumChoice,
} from './live.js';
export { conditionsNow } from './conditions.js';
export { loudspeakerById, loudspeakerName, loudspeakerOn } from './loudspeakers.js';
export {
  HIGHEST_DBFS,
  levelAdvice,
  TELLING_DBFS,
  LOWEST_DBFS,
  SPARE_DB,
  type LevelAdvice,
  type WeakestPlace,
} from './levelAdvice.js';
export { lowInput } from './lowInput.js';
export { movedSpots, type MovedSpot } from './movedSpots.js';
export { oddSweeps, type OddSweep } from './oddSweeps.js';
export { LIMIT_DB, LOUD_ENOUGH_DB, UNCLEAR } from './channelLimits.js';
export { roundFindings, roundNoise, type RoundFault, type RoundFinding } from './roundFindings.js';
export {
  designKey,
  fittedOf,
  isSpotTaken,
  marginNow,
  measuredKey,
  roundOf,
  shortHash,
  sweepOf,
  usableSpots,
  type Measured,
} from './progress.js';
export { staleSweeps, type Stale } from './staleSweeps.js';
export { GUARDS, STEPS, type Guard } from './correction.js';
export {
  filterPart,
  isCrossed,
  shareAlignment,
  staleSteps,
  suggestedAlignment,
  takeCrossover,
  subLimits,
  takeEvenSeats,
  takeLevels,
} from './steps.js';
export { crossingS, travelS, wayM } from './travel.js';
export { processorProfile } from './processorSchema.js';
export { FIXTURE_KINDS, MOUNTS, PLACE_KINDS, type Mount, type PlaceKind } from './place.js';
export { verdictKey, verifiedIds, verifiedOf, type VerifiedStage } from './verified.js';
export { migrateProject } from './migrate.js';
export { familiesOf, proposeFamilies, withMember } from './families.js';
export { arraysOf, enclosedIds, withArrayIds, withFileIds, withRunIds } from './arraysOf.js';
export { checkProject } from './schema.js';
export { readProjectFile, writeProjectFile } from './projectFile.js';
export {
  firstVariant,
  freeName,
  STARTING_CORRECTION,
  targetOf,
  variantOf,
  withCorrection,
} from './variants.js';
export {
  emptyProject,
  FACING_DEG,
  layoutLoudspeakers,
  MAINS_LAYOUT,
  newPlace,
  newProject,
  NO_LAYOUT,
  plainLoudspeaker,
  plainShape,
  USUAL_SIZE,
  type NewProject,
} from './newProject.js';
export { abbreviated } from './migratePlace.js';
export {
  centreLine,
  chosenPoints,
  mirroredName,
  withAligned,
  withDistributed,
  withDuplicates,
  withMirrored,
  withMoved,
  withoutThings,
  type Shift,
} from './editPlace.js';
export { placeProblems, type PlaceProblem } from './placeProblems.js';
export { measuredIds, withoutChosen } from './removeThings.js';
export { freeOutput } from './freeOutput.js';
export { allPassesOffered, channelSettings, takeAligned } from './takeAligned.js';
export { partsTogether } from './playedTogether.js';
export type { PlayedPart, TogetherOrigin } from './togetherOrigin.js';
export {
  isFromModels,
  isPlain,
  leavesOf,
  MOST_WEIGHT,
  MOST_ALL_PASSES,
  MOST_SOURCES,
  newStep,
  plainSetting,
  playedDelays,
  settingOf,
  stepsBelow,
  withSource,
  type AlignSource,
  type AlignStep,
  type KeptSetting,
  type SourceOf,
} from './align.js';
export { changedBelow, noted, seenAsItIs } from './restsOn.js';
export {
  systemGroups,
  systemSteps,
  type ChannelGroup,
  type GroupRole,
  type SystemGroup,
} from './systemSteps.js';
export { changedSince, runFaces, type ChangedSince } from './runFacts.js';
export { takeVoiceFirst } from './takeVoiceFirst.js';
export { addRays, raysFrom, type TellsRays } from './runFiles.js';
export { roomRun } from './roomRunSchema.js';
export { MOST_ROOM_FACES, MOST_SURFACE_VARIANTS } from './placeSchema.js';
