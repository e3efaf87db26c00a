import { useComputedColorScheme } from '@mantine/core';
import { useLayoutEffect, useState } from 'react';

export type ColourOf = (name: string) => string;

/** Colours by their names in the style sheet, as they are in a look; each is asked for once. */
function coloursOf(_scheme: 'light' | 'dark'): ColourOf {
  const style = getComputedStyle(document.documentElement);
  const known = new Map<string, string>();
  return (name) => {
    const colour = known.get(name) ?? style.getPropertyValue(`--${name}`).trim();
    known.set(name, colour);
    return colour;
  };
}

/** Colours for a canvas, as the look has them now; null until they can be asked for. */
export function useLookColours(): ColourOf | null {
  const scheme = useComputedColorScheme('light');
  const [colours, setColours] = useState<ColourOf | null>(null);
  useLayoutEffect(() => setColours(() => coloursOf(scheme)), [scheme]);
  return colours;
}
