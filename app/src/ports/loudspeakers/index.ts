/** How loudspeakers radiate, by their names: our own library. */
export { radiatingOf } from '@pebble-hall/stand-ins/loudspeakers';
