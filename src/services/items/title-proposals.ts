import { z } from 'zod';
import { type TitleVersion, titleVersions } from '../../core/listing';
import { database } from '../../db/client';
import { loadAccounts } from '../records/accounts/load-accounts';
import { loadItem } from '../records/items/load-items';

export const titleProposalsSchema = z
  .object({
    account: z.coerce.number().int().positive().optional(),
    max: z.coerce.number().int().min(5).max(500).optional(),
  })
  .strict();

/** Ways to say the title within an account's limit, or within a given one. */
export async function titleProposals(
  itemId: number,
  { account, max }: z.infer<typeof titleProposalsSchema>,
): Promise<{ max: number; versions: TitleVersion[] }> {
  const db = database();
  const item = await loadItem(db, itemId);
  const [shop] = account ? await loadAccounts(db, [account]) : [];
  const limit = max ?? shop?.compiled.rules.title?.max ?? 130;
  return { max: limit, versions: titleVersions(item, limit) };
}
