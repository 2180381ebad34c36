import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { readSkuPattern, type SkuPattern } from '../../core/item';
import { database, type Executor } from '../../db/client';
import { setting } from '../../db/schema';

const firstPattern = 'GH-{seq}';

export const shopSettingsSchema = z
  .object({ skuPattern: z.string().trim().min(1).max(80) })
  .strict()
  .superRefine(({ skuPattern }, context) => {
    const read = readSkuPattern(skuPattern);
    if ('problem' in read) context.addIssue({ code: 'custom', path: ['skuPattern'], message: read.problem });
  });

export type ShopSettings = z.infer<typeof shopSettingsSchema>;

export async function readSettings(db: Executor = database()): Promise<ShopSettings> {
  const [row] = await db.select().from(setting).where(eq(setting.name, 'skuPattern'));
  return { skuPattern: typeof row?.value === 'string' ? row.value : firstPattern };
}

/** The pattern of stock numbers, read; the one that Netting starts with when the kept one cannot be read any more. */
export async function skuParts(db: Executor): Promise<SkuPattern> {
  const { skuPattern } = await readSettings(db);
  const read = readSkuPattern(skuPattern);
  if ('parts' in read) return read.parts;
  const first = readSkuPattern(firstPattern);
  if ('parts' in first) return first.parts;
  throw new NettingError('invalid', read.problem, { field: 'skuPattern' });
}
