import { type SQL, sql } from 'drizzle-orm';
import { noSums, type SaleSums } from '../../core/insight';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';

/** Of lines that count: called off they are none, and without a rate they have no amount. */
const counts = sql`(s.state = 'paid' and s.taken_home is not null)`;
const sumOf = (amount: SQL) => sql`coalesce(sum(if(${counts}, ${amount}, 0)), 0)`;

const columns = sql`
  sum(s.state = 'paid') as orders,
  coalesce(sum(if(s.state = 'paid', s.quantity, 0)), 0) as pieces,
  ${sumOf(sql`s.taken_home`)} as taken,
  ${sumOf(sql`s.taken_home - s.kept_home - s.payment_home - s.handling_home - s.other_home`)} as commission,
  ${sumOf(sql`s.payment_home`)} as payment,
  ${sumOf(sql`s.handling_home`)} as handling,
  ${sumOf(sql`s.other_home`)} as otherFees,
  ${sumOf(sql`s.postage`)} as postage,
  ${sumOf(sql`s.packing`)} as packing,
  ${sumOf(sql`coalesce(s.cost, 0) * s.quantity`)} as cost,
  ${sumOf(sql`s.kept_home - s.postage - s.packing - coalesce(s.cost, 0) * s.quantity`)} as net,
  coalesce(sum(s.state = 'paid' and s.taken_home is null), 0) as unknown,
  ${sumOf(sql`if(s.cost is null, s.quantity, 0)`)} as costless,
  sum(s.state = 'cancelled') as cancelled`;

/**
 * Sums of sales by what they are grouped by.
 * @param groups expressions over `s` (and `i`, where it is joined); each comes back under its name
 */
export async function readSums<Group extends string>(
  groups: Record<Group, SQL>,
  { from, where, order = sql`` }: { from: SQL; where: SQL; order?: SQL },
): Promise<(SaleSums & Record<Group, string | number | null>)[]> {
  const named = Object.entries<SQL>(groups);
  const shown = named.map(([name, expression]) => sql`${expression} as ${sql.identifier(name)}`);
  const rows = rowsOf<Record<string, string | number | null>>(
    await database().execute(
      sql`select ${sql.join([...shown, columns], sql`, `)} from ${from} where ${where} group by ${sql.join(
        named.map(([name]) => sql.identifier(name)),
        sql`, `,
      )} ${order}`,
    ),
  );
  // Sums of whole numbers come as text, since they may be larger than the driver's numbers.
  return rows.map((row) => ({
    ...row,
    ...Object.fromEntries(Object.keys(noSums).map((name) => [name, Number(row[name])])),
  })) as (SaleSums & Record<Group, string | number | null>)[]; // the columns above
}
