'use client';

import { useQuery } from '@tanstack/react-query';
import { RotateCcw } from 'lucide-react';
import Link from 'next/link';
import { isReturnable } from '@/core/change/returnable';
import type { Json } from '@/core/json';
import type { HistoryEntry } from '@/services/items/item-history';
import { fieldName, itemFieldName, shownItemValue, shownValue } from '@/ui/controls/shown-value';
import { Failed, Loading } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

const whyWords: Record<string, string> = {
  typing: '',
  bulk: 'in a bulk change',
  undo: 'taken back',
  sale: 'by a sale',
  marketplace: 'on the marketplace',
  import: 'from a file',
};
const outcomes: Record<Extract<HistoryEntry, { kind: 'answer' }>['outcome'], string> = {
  created: 'took the listing',
  changed: 'took the changes',
  ended: 'ended the listing',
  renewed: 'ended it and made it anew',
  nothing: 'had it like that already',
  failed: 'refused',
  skipped: 'was skipped',
};

const short = (text: string) => (text.length > 90 ? `${text.slice(0, 88)}…` : text);
type Change = Extract<HistoryEntry, { kind: 'change' }>;

const nameOf = ({ field, accountId, combination }: Change) => {
  const name = (accountId === null ? itemFieldName(field) : fieldName(field)).toLowerCase();
  return combination === null ? name : `${name} of ${combination}`;
};
const said = ({ field, accountId }: Change, value: Json) =>
  short(accountId === null ? shownItemValue(field, value) : shownValue(field, value));

const isObject = (value: Json): value is Record<string, Json> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** What changed in words; of a field with many names in it only those that changed. */
function difference(entry: Change): string {
  const { from = null, to = null } = entry as { from?: Json; to?: Json }; // the record holds JSON values only
  if (!isObject(from) || !isObject(to)) return `${said(entry, from)} → ${said(entry, to)}`;
  const names = [...new Set([...Object.keys(from), ...Object.keys(to)])].filter(
    (name) => JSON.stringify(from[name]) !== JSON.stringify(to[name]),
  );
  return names
    .map(
      (name) =>
        `${name}: ${short(shownItemValue(name, from[name] ?? null))} → ${short(shownItemValue(name, to[name] ?? null))}`,
    )
    .join('; ');
}

type Props = { itemId: number; accountName: (id: number) => string; changed: () => void };

/** Who changed what and when, and what each marketplace answered; each change can be returned in one step. */
export function History({ itemId, accountName, changed }: Props) {
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['history', itemId],
    queryFn: () => api('GET /items/{id}/history', { params: { id: itemId } }),
  });
  const back = useCommand(
    async (id: number) => {
      const { field } = await api('POST /items/{id}/history/{change}/return', { params: { id: itemId, change: id } });
      changed();
      await refetch();
      return `${itemFieldName(field)} is what it was before`;
    },
    { touches: [['history']], tells: true },
  );
  if (isPending) return <Loading what="the history" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  return (
    <ol className="min-h-0 flex-1 space-y-1 overflow-auto p-4" aria-label="History">
      {data.history.map((entry) => (
        <li key={`${entry.kind}-${entry.id}`} className="group flex gap-3">
          <span className="quiet w-32 shrink-0">
            <When at={entry.at} />
          </span>
          {entry.kind === 'answer' ? (
            <span className={entry.outcome === 'failed' ? 'text-warning' : ''}>
              <b className="font-medium">{accountName(entry.accountId)}</b> {outcomes[entry.outcome]}
              {entry.fields.length ? `: ${entry.fields.join(', ')}` : ''}
              {entry.message ? `: ${entry.message}` : ''}
              {entry.fix ? ` – ${entry.fix}` : ''}
            </span>
          ) : (
            <span className="flex-1">
              <b className="font-medium">{entry.byName}</b>{' '}
              {entry.field === 'created'
                ? 'recorded the item'
                : entry.field === 'target'
                  ? entry.to
                    ? 'added the item'
                    : 'left the item out'
                  : `changed ${nameOf(entry)}`}
              {entry.accountId ? ` on ${accountName(entry.accountId)}` : ''}{' '}
              {entry.runId !== null && (entry.why === 'bulk' || entry.why === 'undo') ? (
                <Link className="underline" href={`/runs/${entry.runId}`}>
                  {whyWords[entry.why]}
                </Link>
              ) : (
                (whyWords[entry.why] ?? '')
              )}
              {entry.field === 'created' || entry.field === 'target' ? '' : `: ${difference(entry)}`}
            </span>
          )}
          {entry.kind === 'change' && isReturnable(entry) ? (
            <button
              type="button"
              className="btn btn-ghost btn-xs"
              aria-label={`Bring ${nameOf(entry)} back to ${said(entry, (entry.from ?? null) as Json)}`} // as above
              onClick={() => void back.run(entry.id)}
            >
              <RotateCcw size={12} aria-hidden="true" /> bring back
            </button>
          ) : null}
        </li>
      ))}
    </ol>
  );
}
