import { z } from 'zod';
import { artworkOf, offeredPrints, printReference } from '../../core/artwork';
import { NettingError } from '../../core/errors';
import { chooseTemplate, printTemplates } from '../../core/listing';
import { database } from '../../db/client';
import { readPrint } from '../../photos/print-store';
import { loadAccounts } from '../records/accounts/load-accounts';
import { loadItem } from '../records/items/load-items';

export const printOfQuery = z
  .object({
    /** The account by whose template it is printed. */
    account: z.coerce.number().int().positive(),
    product: z.string().min(1).max(60),
  })
  .strict();

/**
 * The printable of artwork on a product, in the measure of its template.
 * @throws NettingError where it is not offered there
 */
export async function printOf(
  itemId: number,
  { account: accountId, product }: z.output<typeof printOfQuery>,
): Promise<{ bytes: Buffer; name: string; mime: string }> {
  const db = database();
  const [account] = await loadAccounts(db, [accountId]);
  const one = await loadItem(db, itemId);
  const print = account && chooseTemplate(printTemplates(account.templates), one, account.today)?.print;
  const offered = print && offeredPrints(one, print, account.compiled).prints.find((each) => each.product === product);
  const reference = print && offered && artworkOf(one) ? printReference(one, offered, print.background) : null;
  if (!print || !reference)
    throw new NettingError('not-found', `${one.title} is not offered on ${product} there`, {
      fix: 'Look at the product templates, and at what was called off',
    });
  const bytes = await readPrint(reference);
  const isPng = bytes[0] === 0x89;
  return {
    bytes,
    name: `${one.sku} ${product}.${isPng ? 'png' : 'jpg'}`,
    mime: isPng ? 'image/png' : 'image/jpeg',
  };
}
