import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { database } from '../../../db/client';
import { rowsOf } from '../../../db/rows';

export const wordsSchema = z.object({
  brand: z.array(z.string()),
  category: z.array(z.string()),
  supplier: z.array(z.string()),
  location: z.array(z.string()),
});
export type Words = z.infer<typeof wordsSchema>;

/** Words that stand in the inventory already, the commonest first, to be proposed while one is typed. */
export async function knownWords(): Promise<Words> {
  const columns = ['brand', 'category', 'supplier', 'location'] as const;
  const lists = await Promise.all(
    columns.map(async (column) => {
      const name = sql.raw(`\`${column}\``);
      const rows = rowsOf<{ word: string }>(
        await database().execute(
          sql`select ${name} as word from item where archived = 0 and ${name} <> '' group by ${name} order by count(*) desc limit 300`,
        ),
      );
      return rows.map((row) => row.word);
    }),
  );
  const [brand = [], category = [], supplier = [], location = []] = lists;
  return { brand, category, supplier, location };
}
