/** Named so in its environment: where the built server's workers lie; where nothing is built there are none. */
export const WORKERS = 'PEBBLE_HALL_WORKERS';
