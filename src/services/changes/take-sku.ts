import { NettingError } from '../../core/errors';
import { type Executor, isDuplicate } from '../../db/client';
import { usedSku } from '../../db/schema';

/** Takes a stock number; numbers once given never return, also when their item is deleted. */
export async function takeSku(db: Executor, sku: string, at: Date, field = 'sku'): Promise<void> {
  try {
    await db.insert(usedSku).values({ sku, at });
  } catch (error) {
    if (isDuplicate(error))
      throw new NettingError('sku-taken', `The stock number ${sku} was given before`, {
        field,
        fix: 'Choose another one',
      });
    throw error;
  }
}
