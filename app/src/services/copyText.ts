import { notify, notifyProblem } from './notify';

/** Puts text on the clipboard, and says so. @param what of it is there now @param instead what to do where the browser does not allow it */
export const copyText = (text: string, what: string, instead: string): Promise<void> =>
  navigator.clipboard.writeText(text).then(
    () => notify(what),
    () => notifyProblem(`The browser does not allow copying here. ${instead}`),
  );
