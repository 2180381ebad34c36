import { type SQL, sql } from 'drizzle-orm';
import { z } from 'zod';
import {
  flawBounds,
  isByAccount,
  type PhotoFlaw,
  type PhotoWants,
  photoFlaws,
  photoWants,
} from '../../core/photo/flaws';
import { database } from '../../db/client';
import { rowsOf } from '../../db/rows';
import { loadAccounts } from '../records/accounts/load-accounts';
import { readSettings } from '../records/accounts/read-settings';

/** Pictures on two items and more, though not on so many that they are meant to be on all. */
const twice = sql`(
  select distinct p.item_id from item_photo p join (
    select q.hash from item_photo q group by q.hash having count(distinct q.item_id) between 2 and ${flawBounds.twiceUpTo}
  ) t on t.hash = p.hash
)`;

/** Whether an item has a flaw, over `i`, its `s` of `photo_summary`, and `t` of those with a picture of another's. */
function term(flaw: PhotoFlaw, wants: PhotoWants | null): SQL {
  switch (flaw) {
    case 'none':
      return sql`i.photo_count = 0`;
    case 'blurred':
      return sql`s.is_blurred = 1`;
    case 'dark':
      return sql`s.is_dark = 1`;
    case 'empty':
      return sql`s.is_empty = 1`;
    case 'twice':
      return sql`t.item_id is not null`;
    case 'few':
      return wants ? sql`(i.photo_count > 0 and i.photo_count < ${wants.few})` : sql`0`;
    case 'small':
      return wants ? sql`(s.longest < ${wants.longest} or s.shortest < ${wants.shortest})` : sql`0`;
    case 'shape':
      return wants?.narrow ? sql`(s.ratio < ${wants.narrow} or s.ratio > ${wants.wide})` : sql`0`;
  }
}

const isOnAccount = (id: number | SQL) =>
  sql`exists (select 1 from listing l where l.item_id = i.id and l.account_id = ${id} and (l.wanted <> 'none' or l.remote <> 'none'))`;

async function wantsByAccount(): Promise<Map<number, PhotoWants>> {
  const [accounts, { photosWanted }] = await Promise.all([loadAccounts(database()), readSettings()]);
  return new Map(
    accounts.flatMap(({ id, compiled }) => {
      const wants = photoWants(compiled.rules, photosWanted);
      return wants ? [[id, wants]] : [];
    }),
  );
}

export const flawCountsSchema = z.object({
  counts: z.array(z.object({ flaw: z.enum(photoFlaws), accountId: z.number().nullable(), items: z.number() })),
  /** Photos that nobody has looked at yet: what is wrong with them is not told. */
  unseen: z.number(),
});

const byItself = photoFlaws.filter((flaw) => !isByAccount(flaw));
const byAccount = photoFlaws.filter(isByAccount);

/** How many items have which flaw, by account where an account asks for it. */
export async function countFlaws(): Promise<z.infer<typeof flawCountsSchema>> {
  const db = database();
  const wants = await wantsByAccount();
  const sums = byItself.map(
    (flaw) => sql`sum(coalesce(${term(flaw, null)}, 0)) as ${sql.raw(flaw === 'none' ? 'bare' : flaw)}`,
  );
  const [all] = rowsOf<Record<string, unknown>>(
    await db.execute(
      sql`select ${sql.join(sums, sql`, `)} from item i left join photo_summary s on s.item_id = i.id left join ${twice} t on t.item_id = i.id where i.archived = 0`,
    ),
  );
  const counts: z.infer<typeof flawCountsSchema>['counts'] = byItself.map((flaw) => ({
    flaw,
    accountId: null,
    items: Number(all?.[flaw === 'none' ? 'bare' : flaw] ?? 0),
  }));
  if (wants.size) {
    const when = (flaw: PhotoFlaw) =>
      sql.join(
        [sql`case l.account_id`, ...[...wants].map(([id, one]) => sql`when ${id} then ${term(flaw, one)}`), sql`end`],
        sql` `,
      );
    const rows = rowsOf<Record<string, unknown>>(
      await db.execute(sql`
        select l.account_id as account, ${sql.join(
          byAccount.map((flaw) => sql`sum(coalesce(${when(flaw)}, 0)) as ${sql.raw(flaw)}`),
          sql`, `,
        )}
        from listing l join item i on i.id = l.item_id left join photo_summary s on s.item_id = i.id
        where i.archived = 0 and (l.wanted <> 'none' or l.remote <> 'none') group by l.account_id`),
    );
    for (const row of rows)
      for (const flaw of byAccount)
        if (Number(row[flaw]) > 0) counts.push({ flaw, accountId: Number(row.account), items: Number(row[flaw]) });
  }
  const [open] = rowsOf<{ count: number }>(
    await db.execute(sql`
      select count(distinct f.hash) as count from item_photo p join photo_file f on f.hash = p.hash where f.sharp is null`),
  );
  return { counts, unseen: Number(open?.count ?? 0) };
}

export const findFlawedSchema = z.object({
  flaw: z.enum(photoFlaws),
  account: z.coerce.number().int().optional(),
  after: z.coerce.number().int().min(0).default(0).describe('The `next` of the page before'),
  limit: z.coerce.number().int().min(1).max(200).default(60),
});

export const flawedItemSchema = z.object({
  id: z.number(),
  sku: z.string(),
  title: z.string(),
  photos: z.array(z.object({ hash: z.string(), width: z.number(), height: z.number() })),
});

/** Items with a flaw, a page at a time. */
export async function findFlawed({
  flaw,
  account,
  after,
  limit,
}: z.infer<typeof findFlawedSchema>): Promise<{ items: z.infer<typeof flawedItemSchema>[]; next: number | null }> {
  const db = database();
  const wants = account === undefined ? null : ((await wantsByAccount()).get(account) ?? null);
  const there = account === undefined ? sql`` : sql` and ${isOnAccount(account)}`;
  const rows = rowsOf<{ id: number; sku: string; title: string }>(
    await db.execute(sql`
      select i.id, i.sku, i.title from item i left join photo_summary s on s.item_id = i.id${flaw === 'twice' ? sql` join ${twice} t on t.item_id = i.id` : sql``}
      where i.archived = 0 and i.id > ${after} and coalesce(${term(flaw, wants)}, 0)${there} order by i.id limit ${limit + 1}`),
  );
  const page = rows.slice(0, limit);
  const photos = page.length
    ? rowsOf<{ item: number; hash: string; width: number; height: number }>(
        await db.execute(sql`
          select p.item_id as item, p.hash, f.width, f.height from item_photo p join photo_file f on f.hash = p.hash
          where p.item_id in ${page.map((one) => one.id)} order by p.item_id, p.position, p.id`),
      )
    : [];
  return {
    items: page.map(({ id, sku, title }) => ({
      id: Number(id),
      sku,
      title,
      photos: photos
        .filter((one) => Number(one.item) === Number(id))
        .map(({ hash, width, height }) => ({ hash, width, height })),
    })),
    next: rows.length > limit ? Number(page.at(-1)?.id ?? 0) : null,
  };
}
