/**
 * A key that nobody else makes up, as a UUID of version 4 (RFC 9562). The browser's own `randomUUID` is there only behind
 * HTTPS and on the machine itself, not in a network at home.
 */
export function newKey(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const digits = [...bytes].map((one) => one.toString(16).padStart(2, '0')).join('');
  return digits.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
}
