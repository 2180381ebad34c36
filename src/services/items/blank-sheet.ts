import { z } from 'zod';
import { emptyItemFields, type Item, itemSchema, planFor } from '../../core/item';
import { homeCurrency } from '../../core/measure';
import { database } from '../../db/client';
import { belongsTo } from '../changes/commit/target-drafts';
import { loadAccounts } from '../records/accounts/load-accounts';
import { readSettings } from '../records/accounts/read-settings';
import { loadCustomFields } from '../records/items/load-custom-fields';
import { columnOf, type ItemSheet, itemSheetSchema } from './item-sheet';

/** The same as a sheet, of an item that has no number yet. */
export const blankSheetSchema = itemSheetSchema.extend({ item: itemSchema.extend({ sku: z.string().max(40) }) });

/** A sheet of which nothing is stored: what each account that wants new items will ask for. It uses up no number. */
export async function blankSheet(): Promise<ItemSheet> {
  const db = database();
  const [accounts, customFields, { sheetRows }] = await Promise.all([
    loadAccounts(db),
    loadCustomFields(db),
    readSettings(db),
  ]);
  const item: Item = {
    ...emptyItemFields,
    id: 0,
    version: 0,
    sku: '',
    currency: homeCurrency,
    quantity: 1,
    standing: 'active',
    photos: [],
    clip: '',
    elsewhere: {},
    placings: {},
    looks: {},
  };
  return {
    item,
    customFields,
    rowPlan: planFor(sheetRows, ''),
    columns: accounts.map((account) =>
      // It has a number once it is stored: nothing is missing for want of it.
      columnOf(
        account,
        { ...item, sku: 'NEW-0000' },
        {
          row: undefined,
          liveCount: 0,
          isMeant: belongsTo(account.row, item),
          lastError: null,
        },
      ),
    ),
  };
}
