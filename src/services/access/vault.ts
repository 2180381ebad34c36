import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';
import { readSecrets } from '../../config';

const key = () => Buffer.from(hkdfSync('sha256', readSecrets().appSecret, '', 'netting account secrets', 32));

/** Encrypts what gives access to a marketplace account (AES-256-GCM). */
export function seal(value: unknown): string {
  const nonce = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', key(), nonce);
  const body = Buffer.concat([cipher.update(JSON.stringify(value), 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), body]).toString('base64');
}

export function unseal<T>(sealed: string): T {
  const bytes = Buffer.from(sealed, 'base64');
  const decipher = createDecipheriv('aes-256-gcm', key(), bytes.subarray(0, 12));
  decipher.setAuthTag(bytes.subarray(12, 28));
  const plain = Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString('utf8');
  return JSON.parse(plain) as T; // only `seal` of this module makes such text
}
