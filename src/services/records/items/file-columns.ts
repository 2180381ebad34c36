import { fieldsFor } from '../../../core/field';
import { type Column, type ColumnAccount, columnOf } from '../../../core/table';
import type { Executor } from '../../../db/client';
import { type LoadedAccount, loadAccounts } from '../accounts/load-accounts';
import { loadCustomFields } from './load-custom-fields';

/** Everything that a column of a file may be of. */
export type FileColumns = {
  accounts: LoadedAccount[];
  catalogue: ReturnType<typeof fieldsFor>;
  /** Undefined for an id that names nothing. */
  find(id: string): Column | undefined;
  /** Every column that there is, in the order of a sheet; attributes where they are named. */
  all(attributes: readonly string[]): Column[];
};

const rowColumns = ['row.item', 'sku', 'row.variation', 'row.key'];
const remotes = ['number', 'link', 'state'];

/** @param named only columns of these ids are asked for: where none is of an account, no account is loaded */
export async function fileColumns(db: Executor, named?: readonly (string | null)[]): Promise<FileColumns> {
  const custom = await loadCustomFields(db);
  const accounts = named && !named.some((id) => id?.startsWith('on.')) ? [] : await loadAccounts(db);
  const catalogue = fieldsFor(custom);
  const there: ColumnAccount[] = accounts.map(({ id, name, compiled }) => ({
    id,
    name,
    currency: compiled.rules.currency,
    catalogue: fieldsFor(custom, compiled.rules),
  }));
  const find = (id: string) => columnOf(id, catalogue, there);
  return {
    accounts,
    catalogue,
    find,
    all(attributes) {
      const own = catalogue.fields.flatMap(({ id, on, traits }) =>
        on === 'item' &&
        !traits.byItself &&
        !['sku', 'attributes', 'own', 'axes', 'variations', 'standing'].includes(id)
          ? [id]
          : [],
      );
      const ids = [
        ...rowColumns,
        ...own,
        ...attributes.map((name) => `attributes.${name}`),
        ...there.flatMap((account) => [
          ...remotes.map((what) => `on.${account.id}.remote.${what}`),
          ...account.catalogue.fields.flatMap(({ id, on }) =>
            on === 'listing' && !['sku', 'variations', 'photos', 'target', 'size'].includes(id)
              ? [`on.${account.id}.${id}`]
              : [],
          ),
        ]),
      ];
      return ids.flatMap((id) => find(id) ?? []);
    },
  };
}
