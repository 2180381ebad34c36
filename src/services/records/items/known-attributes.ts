import { sql } from 'drizzle-orm';
import type { Executor } from '../../../db/client';
import { rowsOf } from '../../../db/rows';

/** Names of attributes that items have. */
export async function knownAttributes(db: Executor): Promise<string[]> {
  const rows = rowsOf<{ name: string }>(
    await db.execute(sql`
      select distinct k.name from (select attributes from item where attributes <> '{}' order by id desc limit 3000) i,
        json_table(json_keys(i.attributes), '$[*]' columns (name varchar(60) path '$')) k`),
  );
  return rows.map((row) => row.name);
}
