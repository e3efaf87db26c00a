/** The Tidepool 6: an analogue mixer with tolerances of its own. */
export { TIDEPOOL, TIDEPOOL_KNOBS, knobValue, type Knob, type Knobs } from './knobs.js';
export { tidepoolChannels, type MixerChannel } from './tidepool.js';
