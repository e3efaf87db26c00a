/**
 * What pages, workers and files of ours may load and do (Content Security Policy level 3): everything from this server, code
 * for WebAssembly that our own scripts bring, sounds and drawings that the page itself made. Nothing inline but by its hash,
 * styles by a nonce, as some are made while the page runs.
 */
export const SCRIPTS = ["'self'", "'wasm-unsafe-eval'"];
export const STYLES = ["'self'"];
export const DIRECTIVES = [
  "default-src 'none'",
  "base-uri 'none'",
  "form-action 'self'",
  "frame-ancestors 'none'",
  // drawings and sounds that the page itself made are read again
  "connect-src 'self' blob:",
  "font-src 'self'",
  "img-src 'self' blob: data:",
  "media-src 'self' blob:",
  "worker-src 'self'",
] as const;

/** For what is no page: workers run under the policy of their own file. */
export const FILE_POLICY = [
  ...DIRECTIVES,
  `script-src ${SCRIPTS.join(' ')}`,
  `style-src ${STYLES.join(' ')}`,
].join('; ');

/** Goes along with every answer. */
export const HEADERS: Record<string, string> = {
  'content-security-policy': FILE_POLICY,
  'x-content-type-options': 'nosniff',
  'x-frame-options': 'DENY',
  'referrer-policy': 'no-referrer',
  'cross-origin-opener-policy': 'same-origin',
  'cross-origin-resource-policy': 'same-origin',
  'permissions-policy':
    'microphone=(self), camera=(), geolocation=(), display-capture=(), payment=(), usb=(), serial=(), hid=(), midi=()',
};
