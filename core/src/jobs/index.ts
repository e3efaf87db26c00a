/** What workers do: stored traces by reference, kept at hand with what is worked out of them. */
export {
  sourceKey,
  type MicrophoneError,
  type TraceRef,
  type TraceSource,
  type TraceSum,
} from './traceSource.js';
export { TraceShelf, type LoadImpulse, type ShelvedTrace } from './traceShelf.js';
export {
  DesignDesk,
  type ChannelRequest,
  type CrossoverRequest,
  type CrossoverSide,
  type ExactRequest,
  type HeardOutput,
  type OnProgress,
} from './designDesk.js';
export { ViewDesk, type ViewedRef } from './viewDesk.js';
export { traceRef, viewedRef, type TracePart } from './sweepTraces.js';
export {
  channelRequests,
  designGround,
  homeSum,
  sweepsUsed,
  togetherIds,
  type DesignGround,
} from './channelRequests.js';
