import { eq } from 'drizzle-orm';
import { Webhook } from 'standardwebhooks';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { database, isDuplicate } from '../../db/client';
import { account, inbox } from '../../db/schema';
import { unseal } from '../access/vault';

const eventSchema = z.object({ type: z.string().max(30), data: z.record(z.string(), z.unknown()) });

/**
 * Takes in a signed event: checks the signature and its age, keeps it once under its message id, and is done. The
 * worker does the rest, so that the marketplace has its answer at once.
 */
export async function receiveWebhook(hookKey: string, body: string, headers: Record<string, string>): Promise<void> {
  const db = database();
  const [row] = await db
    .select({ id: account.id, hookSecret: account.hookSecret })
    .from(account)
    .where(eq(account.hookKey, hookKey));
  if (!row?.hookSecret) throw new NettingError('not-found', 'No such address');
  let payload: unknown;
  try {
    payload = new Webhook(unseal<string>(row.hookSecret)).verify(body, headers);
  } catch {
    throw new NettingError('not-allowed', 'The signature does not fit');
  }
  const event = eventSchema.parse(payload);
  const messageId = `${row.id}/${headers['webhook-id']}`.slice(0, 120);
  try {
    await db.insert(inbox).values({
      messageId,
      accountId: row.id,
      type: event.type,
      data: event.data,
      dueAt: new Date(),
      receivedAt: new Date(),
    });
  } catch (error) {
    if (!isDuplicate(error)) throw error;
  }
}
