import { randomBytes } from 'node:crypto';
import { database } from '../../db/client';
import { apiToken } from '../../db/schema';
import type { Actor } from './actor';
import { hashOf } from './token-hash';

/** Makes a token for a program; it is shown once and only its hash is kept. */
export async function createApiToken(actor: Actor, name: string): Promise<{ token: string }> {
  const token = `net_${randomBytes(30).toString('base64url')}`;
  await database()
    .insert(apiToken)
    .values({ name: name.slice(0, 80), hash: hashOf(token), userId: actor.id, createdAt: new Date() });
  return { token };
}
