import { eq } from 'drizzle-orm';
import { NettingError } from '../../../core/errors';
import { database } from '../../../db/client';
import { template } from '../../../db/schema';
import { recheckAccounts } from '../../records/listings/recheck-accounts';

export async function removeTemplate(id: number): Promise<void> {
  const [old] = await database().select().from(template).where(eq(template.id, id));
  if (!old) throw new NettingError('not-found', 'There is no such template');
  await database().delete(template).where(eq(template.id, id));
  await recheckAccounts(old.accounts);
}
