import { Color } from 'three';

/** A colour of the page by its name, as it is in Daylight or Dusk now. */
export const pageColour = (name: string): Color =>
  new Color(getComputedStyle(document.body).getPropertyValue(name).trim() || '#888');
