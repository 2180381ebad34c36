import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { Edit } from '@/services/changes/many/edit-schema';
import type { EditConsequences } from '@/services/changes/preview/consequences';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { type BadgeStep, ContactSheet } from './photos/contact-sheet';
import { PreviewTable } from './preview-table';

type Props = {
  /** The whole choice, also what is left out. */
  edit: Edit;
  /** As this account will get it; undefined as the item itself becomes. */
  account: number | undefined;
  accounts: AccountView[];
  counts: EditConsequences | null;
  left: ReadonlySet<number>;
  leave: (ids: ReadonlySet<number>) => void;
  badge: BadgeStep | null;
};

/** Old and new of the first items, of the item itself or as one account will get it; on wish what is refused. */
export function PreviewPane({ edit, account, accounts, counts, left, leave, badge }: Props) {
  const [onlyRefused, setOnlyRefused] = useState(false);
  const refused = counts?.refusedItems ?? [];
  const showsRefused = onlyRefused && refused.length > 0;
  const body = { ...edit, account, ...(showsRefused ? { selection: { kind: 'items' as const, ids: refused } } : {}) };
  const preview = useQuery({
    queryKey: ['edit-preview', body],
    queryFn: ({ signal }) => api('POST /edits/preview', { body, signal }),
    placeholderData: keepPreviousData,
  });
  const isOnPhotos = edit.steps.every((step) => step.field === 'photos');
  const count = counts?.refused.reduce((sum, one) => sum + one.count, 0) ?? 0;
  return (
    <>
      {count > 0 ? (
        <label className="sticky left-0 flex items-center gap-1.5 border-b border-base-300 px-3 py-1.5">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={onlyRefused}
            onChange={(event) => setOnlyRefused(event.target.checked)}
          />
          Only what is refused ({count.toLocaleString('en')})
        </label>
      ) : null}
      {preview.isError ? <Failed error={preview.error} retry={() => void preview.refetch()} /> : null}
      {preview.isPending ? <Loading what="the preview" /> : null}
      {preview.data && isOnPhotos ? (
        <ContactSheet
          rows={preview.data.rows}
          nameOf={(id) => accounts.find((one) => one.id === id)?.name}
          left={left}
          leave={leave}
          badge={badge}
        />
      ) : null}
      {preview.data && !isOnPhotos ? (
        <PreviewTable rows={preview.data.rows} accounts={accounts} left={left} leave={leave} />
      ) : null}
      {!showsRefused && counts && preview.data && counts.total > preview.data.rows.length ? (
        <p className="quiet p-3">
          The first {preview.data.rows.length} of {counts.total.toLocaleString('en')} are shown; all are counted on the
          right.
        </p>
      ) : null}
    </>
  );
}
