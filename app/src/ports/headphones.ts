/** The library of headphone responses; made-up models ship with it. */
export { HEADPHONE_MODELS, headphoneResponse } from '@pebble-hall/stand-ins/headphones';
