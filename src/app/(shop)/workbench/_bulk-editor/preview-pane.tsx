import { keepPreviousData, skipToken, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { EditConsequences } from '@/services/changes/consequences';
import type { Edit } from '@/services/changes/edit-schema';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { PreviewTable } from './preview-table';

/** Old and new of the first items, of the item itself or as one account will get it; on wish what is refused. */
export function PreviewPane({
  edit,
  accounts,
  counts,
  left,
  leave,
}: {
  /** The whole choice, also what is left out. */
  edit: Edit;
  accounts: AccountView[];
  counts: EditConsequences | null;
  left: ReadonlySet<number>;
  leave: (ids: ReadonlySet<number>) => void;
}) {
  const [account, setAccount] = useState<number | undefined>();
  const [onlyRefused, setOnlyRefused] = useState(false);
  const refused = counts?.refusedItems ?? [];
  const showsRefused = onlyRefused && refused.length > 0;
  const body = { ...edit, account, ...(showsRefused ? { selection: { kind: 'items' as const, ids: refused } } : {}) };
  const preview = useQuery({
    queryKey: ['edit-preview', body],
    queryFn: edit ? ({ signal }) => api('POST /edits/preview', { body, signal }) : skipToken,
    placeholderData: keepPreviousData,
  });
  const changing = new Set(counts?.accounts.filter((one) => one.changes > 0).map((one) => one.accountId));
  const shown = accounts.filter((one) => changing.has(one.id) || one.id === account);
  const count = counts?.refused.reduce((sum, one) => sum + one.count, 0) ?? 0;
  return (
    <>
      <div className="sticky left-0 flex flex-wrap items-center gap-1 border-b border-base-300 px-2 py-1">
        <div role="group" aria-label="Seen as" className="flex flex-wrap items-center gap-1">
          <button
            type="button"
            aria-pressed={account === undefined}
            className={`btn btn-xs ${account === undefined ? 'btn-active' : 'btn-ghost'}`}
            onClick={() => setAccount(undefined)}
          >
            Item
          </button>
          {shown.map((one) => (
            <button
              key={one.id}
              type="button"
              aria-pressed={account === one.id}
              title={`As ${one.name} will get it`}
              className={`btn btn-xs ${account === one.id ? 'btn-active' : 'btn-ghost'}`}
              onClick={() => setAccount(one.id)}
            >
              {one.name}
            </button>
          ))}
        </div>
        {count > 0 ? (
          <label className="ml-auto flex items-center gap-1">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={onlyRefused}
              onChange={(event) => setOnlyRefused(event.target.checked)}
            />
            Only what is refused ({count.toLocaleString('en')})
          </label>
        ) : null}
      </div>
      {preview.isError ? <Failed error={preview.error} retry={() => void preview.refetch()} /> : null}
      {preview.isPending ? <Loading what="the preview" /> : null}
      {preview.data ? <PreviewTable rows={preview.data.rows} accounts={accounts} left={left} leave={leave} /> : null}
      {!showsRefused && counts && preview.data && counts.total > preview.data.rows.length ? (
        <p className="quiet p-3">
          The first {preview.data.rows.length} of {counts.total.toLocaleString('en')} are shown; all are counted on the
          right.
        </p>
      ) : null}
    </>
  );
}
