/** Addresses of the workbenches; everything else is a page of its own. */
export type Path =
  | '/'
  | '/plan'
  | '/room-model'
  | '/rig'
  | '/mic-walk'
  | '/live'
  | '/traces'
  | '/align'
  | '/correct'
  | '/listen'
  | '/hand-over';

const STEPPED = 'pebble-hall.stepped';

/** Steps to another workbench: the page stays, with all that goes on in it. */
export function stepTo(href: string): void {
  history.pushState(null, '', href);
  dispatchEvent(new Event(STEPPED));
}

/** Tells where one is now, at each step and at each step back, until the returned function is called. */
export function onStep(tell: () => void): () => void {
  addEventListener(STEPPED, tell);
  addEventListener('popstate', tell);
  return () => {
    removeEventListener(STEPPED, tell);
    removeEventListener('popstate', tell);
  };
}

/** Makes links between workbenches steps, until the returned function is called. */
export function stepByLinks(isWorkbench: (path: string) => boolean): () => void {
  const onClick = (event: MouseEvent) => {
    const link = linkToFollow(event);
    if (!link) return;
    const to = new URL(link.href, location.href);
    if (to.origin !== location.origin || !isWorkbench(to.pathname)) return;
    // the browser itself goes to a place within the page
    if (to.pathname === location.pathname && to.search === location.search && to.hash) return;
    event.preventDefault();
    stepTo(to.pathname + to.search + to.hash);
  };
  document.addEventListener('click', onClick);
  return () => document.removeEventListener('click', onClick);
}

/** The link that a click follows in this tab; null for a click on anything else, or one that opens a tab or saves a file. */
export function linkToFollow(
  event: Pick<
    MouseEvent,
    'target' | 'defaultPrevented' | 'button' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'
  >,
): HTMLAnchorElement | null {
  const { target, defaultPrevented, button, ctrlKey, metaKey, shiftKey, altKey } = event;
  if (defaultPrevented || button !== 0 || ctrlKey || metaKey || shiftKey || altKey) return null;
  const link = (target as Element | null)?.closest?.<HTMLAnchorElement>('a[href]') ?? null;
  return link && !link.hasAttribute('download') && (link.target === '' || link.target === '_self')
    ? link
    : null;
}
