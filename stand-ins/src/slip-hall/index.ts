/** The Slip Hall of the Saltmarsh Boathouse: its walls, and what hangs and stands in it. All of it is made up. */
export { SLIP_HALL_LOUDSPEAKERS } from './loudspeakers.js';
export { SLIP_HALL_AREAS, SLIP_HALL_FIXTURES, SLIP_HALL_SHAPE } from './room.js';
