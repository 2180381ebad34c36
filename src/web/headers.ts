/**
 * Content security policy, level 3, of a page: code comes from this server and carries the number of this very answer. Styles
 * that a page's own parts bear (widths, colours of chips) are the one thing that is allowed inline; they run nothing.
 */
export const contentPolicy = (nonce: string): string =>
  [
    "default-src 'self'",
    "img-src 'self' data: blob:",
    "style-src 'self' 'unsafe-inline'",
    // The reader of codes is a module that is compiled here.
    `script-src 'self' 'nonce-${nonce}' 'wasm-unsafe-eval'`,
    "connect-src 'self'",
    "object-src 'none'",
    "frame-ancestors 'none'",
    "base-uri 'self'",
    "form-action 'self'",
  ].join('; ');

/** What is not a page runs nothing, however somebody gets a browser to open it. */
const dataPolicy =
  "default-src 'none'; img-src 'self' data:; media-src 'self'; style-src 'unsafe-inline'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'";

/** Workers and the modules that they compile. */
const filePolicy =
  "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; frame-ancestors 'none'; base-uri 'none'; form-action 'none'";

/** Of every answer. */
const everywhere: Record<string, string> = {
  'X-Content-Type-Options': 'nosniff',
  'X-Frame-Options': 'DENY',
  'Referrer-Policy': 'same-origin',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Permissions-Policy':
    'accelerometer=(), browsing-topics=(), camera=(self), display-capture=(), geolocation=(), gyroscope=(), magnetometer=(), microphone=(), midi=(), payment=(), usb=()',
};

/** A browser that was once here over TLS does not come without it for a year (RFC 6797). */
const overTls: Record<string, string> = { 'Strict-Transport-Security': 'max-age=31536000; includeSubDomains' };

/** The policy of what is no page; a page brings its own. */
const policyOf = (path: string): Record<string, string> => {
  if (path.startsWith('/api/')) return { 'Content-Security-Policy': dataPolicy };
  return path.startsWith('/_next/') || /\.[a-z0-9]+$/.test(path) ? { 'Content-Security-Policy': filePolicy } : {};
};

/**
 * What an answer says besides what it is.
 * @param path without what stands after `?`
 */
export const headersOf = (path: string, scheme: 'http' | 'https'): Record<string, string> => ({
  ...everywhere,
  ...policyOf(path),
  ...(scheme === 'https' ? overTls : {}),
});
