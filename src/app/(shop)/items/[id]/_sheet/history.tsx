'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { RotateCcw } from 'lucide-react';
import { isReturnable } from '@/core/change/returnable';
import { brief } from '@/core/field/brief';
import { itemField } from '@/core/field/catalogue';
import { combinationFields } from '@/core/field/combination-fields';
import { ownField } from '@/core/field/custom-field';
import type { Kind } from '@/core/field/kind';
import { listingField } from '@/core/field/listing-fields';
import type { Json } from '@/core/json';
import type { HistoryEntry, HistoryPlace } from '@/services/items/item-history';
import type { ItemSheet } from '@/services/items/item-sheet';
import { Link } from '@/ui/controls/link';
import { itemFieldName } from '@/ui/controls/shown-value';
import { Failed, Loading } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { WordDiff } from '@/ui/controls/word-diff';
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

type Change = Extract<HistoryEntry, { kind: 'change' }>;

/** What a changed field is called, of which kind it is, and in which currency its amounts are. */
function fieldOf(
  { field, accountId, combination }: Change,
  sheet: ItemSheet,
): { name: string; kind?: Kind; currency: string } {
  const { item, columns, customFields } = sheet;
  if (accountId !== null) {
    const column = columns.find((one) => one.accountId === accountId);
    const known = column?.fields.find((one) => one.field === field);
    const { label = field, kind } = known ?? listingField(field) ?? {};
    return { name: label, kind, currency: column?.currency ?? item.currency };
  }
  const custom = customFields.find((one) => field === `own.${one.key}`);
  const known =
    combination === null
      ? custom
        ? ownField(custom)
        : itemField(field)
      : combinationFields[field as keyof typeof combinationFields]; // fields of a combination, when it names one
  return {
    name: known?.label ?? field.replace(/^(attributes|own)\./, ''),
    kind: known?.kind,
    currency: item.currency,
  };
}

const nameOf = (entry: Change, sheet: ItemSheet): string => {
  const name = fieldOf(entry, sheet).name.toLowerCase();
  return entry.combination === null ? name : `${name} of ${entry.combination}`;
};

const isObject = (value: Json): value is Record<string, Json> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const inWords = (kind: Kind | undefined, value: Json, currency: string): string => {
  if (kind)
    return brief(kind, value, { currency })
      .replace(/[ \t]+/g, ' ')
      .trim();
  return typeof value === 'string' ? value : value === null ? '' : JSON.stringify(value);
};

const backTo = (entry: Change, sheet: ItemSheet): string => {
  const { kind, currency } = fieldOf(entry, sheet);
  return inWords(kind, (entry.from ?? null) as Json, currency).slice(0, 90) || 'nothing'; // the record holds JSON only
};

/** What changed, as a person reads it; of a field with many names in it only those that changed, of texts the words. */
function Difference({ entry, sheet }: { entry: Change; sheet: ItemSheet }) {
  const { from = null, to = null } = entry as { from?: Json; to?: Json }; // the record holds JSON values only
  const { kind, currency } = fieldOf(entry, sheet);
  const pair = (before: string, after: string) =>
    kind?.is === 'text' || kind?.is === 'rich' || kind?.is === 'list' ? (
      <WordDiff before={before} after={after} />
    ) : (
      `${before || 'nothing'} → ${after || 'nothing'}`
    );
  if (kind?.is !== 'map' || !isObject(from) || !isObject(to))
    return pair(inWords(kind, from, currency), inWords(kind, to, currency));
  const names = [...new Set([...Object.keys(from), ...Object.keys(to)])].filter(
    (name) => JSON.stringify(from[name]) !== JSON.stringify(to[name]),
  );
  return names
    .map((name) => {
      const label = entry.field === 'own' ? (sheet.customFields.find((one) => one.key === name)?.label ?? name) : name;
      const said = (value: Json | undefined) => inWords(undefined, value ?? null, currency) || 'nothing';
      return `${label}: ${said(from[name])} → ${said(to[name])}`;
    })
    .join('; ');
}

type Props = { sheet: ItemSheet; changed: () => void };

/** Who changed what and when, and what each marketplace answered; each change can be returned in one step. */
export function History({ sheet, changed }: Props) {
  const itemId = sheet.item.id;
  const accountName = (id: number) => sheet.columns.find((column) => column.accountId === id)?.name ?? '';
  const pages = useInfiniteQuery({
    queryKey: ['history', itemId],
    queryFn: ({ pageParam }) => api('GET /items/{id}/history', { params: { id: itemId }, query: pageParam }),
    initialPageParam: {} as HistoryPlace,
    getNextPageParam: (page) => page.next ?? undefined,
  });
  const { data, isPending, isLoadingError, error, refetch } = pages;
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
  const history = data.pages.flatMap((page) => page.history);
  return (
    <div className="min-h-0 flex-1 overflow-auto p-4">
      <ol className="space-y-1" aria-label="History">
        {history.map((entry) => (
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
                    : `changed ${nameOf(entry, sheet)}`}
                {entry.accountId ? ` on ${accountName(entry.accountId)}` : ''}{' '}
                {entry.runId !== null && (entry.why === 'bulk' || entry.why === 'undo') ? (
                  <Link className="underline" href={`/runs/${entry.runId}`}>
                    {whyWords[entry.why]}
                  </Link>
                ) : (
                  (whyWords[entry.why] ?? '')
                )}
                {entry.field === 'created' || entry.field === 'target' ? null : (
                  <>
                    : <Difference entry={entry} sheet={sheet} />
                  </>
                )}
              </span>
            )}
            {entry.kind === 'change' && isReturnable(entry) ? (
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                aria-label={`Bring ${nameOf(entry, sheet)} back to ${backTo(entry, sheet)}`}
                onClick={() => void back.run(entry.id)}
              >
                <RotateCcw size={12} aria-hidden="true" /> bring back
              </button>
            ) : null}
          </li>
        ))}
      </ol>
      {pages.hasNextPage ? (
        <button
          type="button"
          className="btn btn-sm mt-3"
          disabled={pages.isFetchingNextPage}
          onClick={() => void pages.fetchNextPage()}
        >
          Older ones
        </button>
      ) : (
        <p className="quiet mt-3">This is the beginning.</p>
      )}
    </div>
  );
}
