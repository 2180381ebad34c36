import { createHmac } from 'node:crypto';

/** What a phone shows for a secret: RFC 6238 with the usual six digits and half minutes; the secret in base 32 (RFC 4648). */
export function totp(secret: string, at = Date.now()): string {
  const signs = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567';
  const bits = [...secret.replace(/=+$/, '')].map((one) => signs.indexOf(one).toString(2).padStart(5, '0')).join('');
  const key = Buffer.from((bits.match(/.{8}/g) ?? []).map((byte) => Number.parseInt(byte, 2)));
  const step = Buffer.alloc(8);
  step.writeBigUInt64BE(BigInt(Math.floor(at / 30_000)));
  const hash = createHmac('sha1', key).update(step).digest();
  const from = (hash.at(-1) ?? 0) & 15;
  return String((hash.readUInt32BE(from) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}
