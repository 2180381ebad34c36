import { sql } from 'drizzle-orm';
import { closeDatabase, database } from '../../../src/db/client';
import { rowsOf } from '../../../src/db/rows';

afterAll(closeDatabase);

test('every table may stand on several servers: it has a primary key, and an engine that is replicated', async () => {
  const tables = rowsOf<{ name: string; engine: string; keyed: number }>(
    await database().execute(sql`select t.table_name as name, t.engine,
      exists (select 1 from information_schema.table_constraints c where c.table_schema = t.table_schema
        and c.table_name = t.table_name and c.constraint_type = 'PRIMARY KEY') as keyed
      from information_schema.tables t where t.table_schema = database() and t.table_type = 'BASE TABLE'`),
  );
  expect(tables.length).toBeGreaterThan(60);
  expect(tables.filter((one) => Number(one.keyed) !== 1 || one.engine !== 'InnoDB')).toEqual([]);
});
