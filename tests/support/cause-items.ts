import { causeItems } from '../../src/services/lists/cause-items';
import type { Cause } from '../../src/services/outbox/find-causes';

/** The stock numbers of a cause, in the order of its file. */
export async function skusOfCause(cause: Cause): Promise<string[]> {
  const skus: string[] = [];
  for await (const items of causeItems(cause)) skus.push(...items.map((one) => one.sku));
  return skus;
}
