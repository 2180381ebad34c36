import { symmetricDecrypt, symmetricEncrypt } from 'better-auth/crypto';
import { eq, inArray, isNotNull } from 'drizzle-orm';
import { readSecrets } from '../../config';
import { database, transaction } from '../../db/client';
import { account, authSession, authTwoFactor, setting } from '../../db/schema';
import { systemActor } from '../access/actor';
import { noteAboutPeople } from '../access/note-about-people';
import { seal, unseal } from '../access/vault';

/** What the library keeps of second steps is sealed by itself, with the same secret. */
async function withToday(data: string): Promise<string> {
  const { appSecret, previousSecret } = readSecrets();
  const plain = await symmetricDecrypt({ key: appSecret, data }).catch(async (error: unknown) => {
    if (!previousSecret) throw error;
    return symmetricDecrypt({ key: previousSecret, data });
  });
  return symmetricEncrypt({ key: appSecret, data: plain });
}

/**
 * Seals everything with the key of today that may still be sealed with the one before, and signs everybody out, since a
 * session is signed with it. Each row by itself: interrupted, it is done again from the beginning.
 * @param settings the names of those that are sealed
 * @returns how many secrets were sealed
 */
export async function sealAnew(settings: readonly string[]): Promise<number> {
  const db = database();
  let sealed = 0;
  for (const { id } of await db.select({ id: account.id }).from(account))
    sealed += await transaction(async (tx) => {
      const [row] = await tx
        .select({ secrets: account.secrets, hookSecret: account.hookSecret })
        .from(account)
        .where(eq(account.id, id))
        .for('update');
      if (!row) return 0;
      const hookSecret = row.hookSecret ? seal(unseal(row.hookSecret)) : null;
      await tx
        .update(account)
        .set({ secrets: seal(unseal(row.secrets)), hookSecret })
        .where(eq(account.id, id));
      return hookSecret ? 2 : 1;
    });
  for (const { name, value } of await db.select().from(setting).where(inArray(setting.name, settings))) {
    if (typeof value !== 'string') continue;
    await db
      .update(setting)
      .set({ value: seal(unseal(value)) })
      .where(eq(setting.name, name));
    sealed++;
  }
  for (const { id, secret, backupCodes } of await db.select().from(authTwoFactor)) {
    await db
      .update(authTwoFactor)
      .set({ secret: await withToday(secret), backupCodes: await withToday(backupCodes) })
      .where(eq(authTwoFactor.id, id));
    sealed += 2;
  }
  await db.delete(authSession).where(isNotNull(authSession.id));
  await noteAboutPeople(systemActor, 'Changed the key that secrets are sealed with; everybody is signed out');
  return sealed;
}
