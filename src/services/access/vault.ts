import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';
import { readSecrets } from '../../config';

const keyOf = (secret: string) => Buffer.from(hkdfSync('sha256', secret, '', 'netting account secrets', 32));

/** Encrypts what gives access to a marketplace account (AES-256-GCM). */
export function seal(value: unknown): string {
  const nonce = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', keyOf(readSecrets().appSecret), nonce);
  const body = Buffer.concat([cipher.update(JSON.stringify(value), 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), body]).toString('base64');
}

function opened(bytes: Buffer, secret: string): string {
  const decipher = createDecipheriv('aes-256-gcm', keyOf(secret), bytes.subarray(0, 12));
  decipher.setAuthTag(bytes.subarray(12, 28));
  return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString('utf8');
}

/**
 * Reads what was sealed, with the key of today or, while it is being changed, with the one before.
 * @throws when it was sealed with another key, or changed since
 */
export function unseal<T>(sealed: string): T {
  const bytes = Buffer.from(sealed, 'base64');
  const { appSecret, previousSecret } = readSecrets();
  let plain: string;
  try {
    plain = opened(bytes, appSecret);
  } catch (error) {
    if (!previousSecret) throw error;
    plain = opened(bytes, previousSecret);
  }
  return JSON.parse(plain) as T; // only `seal` of this module makes such text
}
