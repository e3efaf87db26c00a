/** Where loudspeakers stand around a listener, by the recommendations of the trade. */
export { LAYOUTS, type Layout, type LayoutChannel } from './layouts.js';
export { layoutPosition, offLayout, type Listener, type OffLayout } from './placeLayout.js';
