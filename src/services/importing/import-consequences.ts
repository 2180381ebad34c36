import { and, asc, eq, gt, inArray } from 'drizzle-orm';
import { applyChanges } from '../../core/change';
import { database } from '../../db/client';
import { newCombinationKey } from '../../db/combination-key';
import { fileImportRow } from '../../db/schema';
import { findEditedListings } from '../changes/many/edited-listings';
import { Consequences, type EditConsequences } from '../changes/preview/consequences';
import { weighChange } from '../changes/preview/weigh-change';
import { fileColumns } from '../records/items/file-columns';
import { itemRecord } from '../records/items/item-record';
import { groupByItem, loadItems } from '../records/items/load-items';
import { accountNets } from '../records/listings/account-nets';
import { changesOf } from './changes-of';
import { loadImport } from './load-import';

const portion = 200;

/** What a file that was compared comes to at each account, told portion by portion, the whole at last. */
export async function* importConsequences(id: number): AsyncGenerator<EditConsequences> {
  const db = database();
  const [{ options, counts }, nets, { catalogue }] = await Promise.all([
    loadImport(db, id),
    accountNets(),
    fileColumns(db),
  ]);
  const total = new Consequences(nets);
  total.total = counts.change + counts.conflict;
  for (let after = 0; ; ) {
    const rows = await db
      .select()
      .from(fileImportRow)
      .where(
        and(
          eq(fileImportRow.importId, id),
          inArray(fileImportRow.kind, ['change', 'conflict']),
          eq(fileImportRow.leftOut, false),
          gt(fileImportRow.line, after),
        ),
      )
      .orderBy(asc(fileImportRow.line))
      .limit(portion);
    const ids = [...new Set(rows.flatMap((row) => row.itemId ?? []))];
    const [items, listings] = [await loadItems(db, ids), groupByItem(await findEditedListings(db, ids))];
    for (const item of items) {
      total.items++;
      const there = listings.get(item.id) ?? [];
      const changes = rows
        .filter((row) => row.itemId === item.id)
        .flatMap((row) => changesOf(row, item, options.decided));
      const result = applyChanges(itemRecord(item, there), changes, { catalogue, newKey: newCombinationKey });
      if ('refused' in result) total.refuse(item.id, result.refused.why);
      else if (result.changes.length) {
        total.changed++;
        weighChange(total, nets, { item, rows: there, after: result.record });
      }
    }
    const last = rows.at(-1);
    const isWhole = !last || rows.length < portion;
    yield total.view(isWhole);
    if (isWhole) return;
    after = last.line;
  }
}
