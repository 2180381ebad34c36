import { randomBytes } from 'node:crypto';
import { eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { config } from '../../config';
import { database } from '../../db/client';
import { setting } from '../../db/schema';
import type { Actor } from '../access/actor';
import { hashOf } from '../access/token-hash';
import { seal, unseal } from '../access/vault';

export const summarySettingsSchema = z
  .object({
    /** From which hour of the day on it is made, by the clock of this machine. */
    hour: z.number().int().min(0).max(23),
    /** Where it is sent to, signed; null for nowhere. */
    address: z
      .url({ protocol: /^https?$/, message: 'An address begins with https:// or http://' })
      .max(500)
      .nullable(),
  })
  .strict();
export type SummarySettings = z.infer<typeof summarySettingsSchema>;

const first: SummarySettings = { hour: 7, address: null };
const names = { told: 'summary', feed: 'summaryFeed', secret: 'summarySecret' };
/** Those whose value is sealed. */
export const sealedSettings = [names.secret];

/** What is kept of it: the feed's key as a hash, the secret that is signed with sealed. */
export async function readSummarySettings(): Promise<SummarySettings & { feed: string | null; secret: string | null }> {
  const rows = await database()
    .select()
    .from(setting)
    .where(inArray(setting.name, Object.values(names)));
  const kept = (name: string): unknown => rows.find((row) => row.name === name)?.value;
  const told = summarySettingsSchema.safeParse(kept(names.told));
  const text = z.string().nullable().catch(null);
  const sealed = text.parse(kept(names.secret) ?? null);
  return {
    ...(told.success ? told.data : first),
    feed: text.parse(kept(names.feed) ?? null),
    secret: sealed ? unseal<string>(sealed) : null,
  };
}

async function keep(actor: Actor, name: string, value: unknown): Promise<void> {
  const set = { value, byName: actor.name, at: new Date() };
  await database()
    .insert(setting)
    .values({ name, ...set })
    .onDuplicateKeyUpdate({ set });
}

export const saveSummarySettings = (actor: Actor, input: SummarySettings) => keep(actor, names.told, input);

/**
 * A new key: the address of the feed, or the secret that messages are signed with (Standard Webhooks, `whsec_…`). It is
 * shown once; what held before holds no more. `off` takes the feed away.
 */
export async function newSummaryKey(actor: Actor, what: 'feed' | 'secret' | 'off'): Promise<{ key: string }> {
  if (what === 'off') {
    await database().delete(setting).where(eq(setting.name, names.feed));
    return { key: '' };
  }
  if (what === 'feed') {
    const key = randomBytes(24).toString('base64url');
    await keep(actor, names.feed, hashOf(key));
    return { key: `${config.baseUrl}/api/feed/${key}` };
  }
  const secret = `whsec_${randomBytes(32).toString('base64')}`;
  await keep(actor, names.secret, seal(secret));
  return { key: secret };
}
