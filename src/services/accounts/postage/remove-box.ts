import { eq } from 'drizzle-orm';
import { NettingError } from '../../../core/errors';
import { database } from '../../../db/client';
import { box } from '../../../db/schema';
import { recheckPostage } from '../rules/recheck-postage';

export async function removeBox(id: number): Promise<void> {
  const [{ affectedRows }] = await database().delete(box).where(eq(box.id, id));
  if (!affectedRows) throw new NettingError('not-found', 'There is no such box');
  await recheckPostage();
}
