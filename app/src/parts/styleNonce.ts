import { setNonce } from 'get-nonce';

/** What this page's styles are let in by: the server made it up for this one answer, and no other page knows it. */
const nonce = document.querySelector('meta[name="style-nonce"]')?.getAttribute('content') ?? '';
// styles of what locks the page behind a dialog
setNonce(nonce);

/** For Mantine, whose styles are partly made while the page runs. */
export const styleNonce = nonce ? { getStyleNonce: () => nonce } : {};

/** A document of ours whose style is let in by the policy of this page. */
export const withNonce = (html: string): string => html.replaceAll('<style>', `<style nonce="${nonce}">`);
