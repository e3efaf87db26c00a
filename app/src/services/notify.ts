import { notifications } from '@mantine/notifications';

/** A short word that goes away by itself. */
export function notify(message: string): void {
  notifications.show({ message, autoClose: 4000, withBorder: true });
}

let shown: string | undefined;

/** Takes the last problem away: something else is being done. */
export function clearProblem(): void {
  if (shown) notifications.hide(shown);
  shown = undefined;
}

/** A problem: what happened, to which thing, and what to do; stays until it is closed or the next one comes. */
export function notifyProblem(message: string): void {
  clearProblem();
  shown = notifications.show({
    message,
    color: 'buoy',
    autoClose: false,
    withBorder: true,
    role: 'alert',
    withCloseButton: true,
  });
}
