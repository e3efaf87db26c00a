const CHANGED = 'pebble-hall.processor';

/** Tells whoever shows it that the processor may hold something else now. */
export const processorChanged = (): boolean => dispatchEvent(new Event(CHANGED));

/** Is told so, and when the window comes back to the front, until the returned function is called. */
export function onProcessorChanged(tell: () => void): () => void {
  addEventListener(CHANGED, tell);
  addEventListener('focus', tell);
  return () => {
    removeEventListener(CHANGED, tell);
    removeEventListener('focus', tell);
  };
}
