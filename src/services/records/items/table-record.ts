import type { Item } from '../../../core/item';
import { knotLabels } from '../../../core/sync';
import type { Column, TableRecord } from '../../../core/table';
import type { ListingRow } from '../../../db/schema';
import type { LoadedAccount } from '../accounts/load-accounts';
import { computeRow } from '../listings/compute-row';

/** Accounts whose listings have to be known for these columns. */
export const accountsIn = (columns: readonly (Column | null)[]): number[] => [
  ...new Set(columns.flatMap((one) => (one && 'account' in one.place ? [one.place.account] : []))),
];

/** What rows of files are written of and compared with: an item, and what its listings get. */
export function tableRecord(item: Item, rows: readonly ListingRow[], accounts: readonly LoadedAccount[]): TableRecord {
  return {
    item,
    listings: new Map(
      accounts.map((account) => {
        const row = rows.find((one) => one.accountId === account.id);
        const { content } = computeRow(item, row, account);
        return [
          account.id,
          {
            content,
            number: row?.remoteId ?? '',
            link: row?.remoteUrl ?? '',
            state: knotLabels[row?.state ?? 'none'],
          },
        ];
      }),
    ),
  };
}
