/** Where loudspeakers reach: direct sound over surfaces and seats, as maps, lines and figures. */
export { bandMean, bandPlan, THIRDS, type BandPlan } from './bands.js';
export {
  fieldPower,
  fieldPowerInSteps,
  firstArrivalS,
  mirrored,
  MOST_SOURCES,
  NEAREST_M,
  sourceField,
  type FieldRequest,
  type FieldSource,
  type Ground,
  type SourceField,
} from './field.js';
export {
  evenedOut,
  FROM_ABOVE,
  gridOver,
  inFrame,
  levelFigures,
  rowsApartDb,
  type GridFrame,
  type LevelFigures,
  type LevelGrid,
} from './grid.js';
export { uprightFrame, uprightGrid } from './upright.js';
export { BALLOON_STEP_DEG, radiationView, type RadiationView } from './radiation.js';
export { crossings, isoLines } from './isoLines.js';
export {
  arrivalMap,
  levelMap,
  levelMapInSteps,
  mapFrequencies,
  pressureAtPoints,
  responseAtPoint,
  type ChannelOf,
  type CoverageChannel,
  type LevelMapRequest,
  type MapBand,
  type PlacedBox,
} from './levelMap.js';
export { coverageChannel, settingsPath, type SettingsInMap } from './channels.js';
export {
  meetingLines,
  meetingPlaces,
  type MeetingGround,
  type MeetingLines,
  type MeetingPlace,
  type PlaceReason,
} from './meetingPlaces.js';
export { groupPattern, type GroupPattern } from './groupPattern.js';
export { measuredPattern, type MeasuredBox } from './measuredPattern.js';
export { channelEmission, type ChannelEmission } from './channelEmission.js';
export { voiceAtSeats, type VoiceRequest } from './voiceAtSeats.js';
