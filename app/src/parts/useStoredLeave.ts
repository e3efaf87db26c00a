import { useEffect } from 'react';
import { repository } from '../store';

/**
 * A page that is left takes with it what it is just storing: whoever steps on to the next page while a change is under
 * way gets there once it is stored.
 */
export function useStoredLeave(): void {
  useEffect(() => {
    const onClick = (event: MouseEvent) => {
      const link = linkToFollow(event);
      const storing = link && repository().settled();
      if (!storing) return;
      event.preventDefault();
      void storing.then(() => location.assign(link.href));
    };
    document.addEventListener('click', onClick);
    return () => document.removeEventListener('click', onClick);
  }, []);
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
