'use client';

import { useQuery } from '@tanstack/react-query';
import type { Item, ItemPatch } from '@/core/item/item';
import type { Json } from '@/core/json';
import type { Proposal } from '@/core/wording/maker';
import type { SheetColumn } from '@/services/items/item-sheet';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';

type Props = {
  item: Item;
  column: SheetColumn | null;
  change: (patch: ItemPatch) => void;
  write: (accountId: number, field: string, value: Json) => Promise<void>;
};

const names = { title: 'Title', tags: 'Keywords', highlights: 'Highlights', description: 'Description' } as const;

/** What stands there now, for a proposal to be read beside it. */
function presentOf(proposal: Proposal, item: Item, column: SheetColumn | null): string {
  if (column) {
    const value = column.fields.find((one) => one.field === proposal.field)?.value;
    return Array.isArray(value) ? value.join(', ') : String(value ?? '');
  }
  const value = item[proposal.field === 'tags' ? 'keywords' : proposal.field];
  return Array.isArray(value) ? value.join(', ') : value;
}

const plain = (text: string) =>
  text
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

/** Proposals for wording beside the present text: taken whole, or word by word, each with its reason. */
export function Wording({ item, column, change, write }: Props) {
  const query = { account: column?.accountId };
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['wording', item.id, item.version, query],
    queryFn: () => api('GET /items/{id}/wording', { params: { id: item.id }, query }),
  });
  if (isPending) return <Loading what="the proposals" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const take = (proposal: Proposal, value: string | string[]) => {
    if (column) return void write(column.accountId, proposal.field, value);
    if (proposal.field === 'tags')
      change({ keywords: value as string[] }); // a list for a list's field
    else change({ [proposal.field]: value });
  };
  const takePart = (proposal: Proposal, text: string) => {
    const present = presentOf(proposal, item, column);
    if (proposal.field === 'title') return take(proposal, `${present} ${text}`.trim());
    if (proposal.field === 'description') return take(proposal, `${present}${text}`);
    const own = column?.fields.find((one) => one.field === proposal.field)?.value;
    const list = column
      ? Array.isArray(own)
        ? own.map(String)
        : []
      : item[proposal.field === 'tags' ? 'keywords' : 'highlights'];
    if (!list.includes(text)) take(proposal, [...list, text]);
  };
  if (data.proposals.length === 0)
    return <p className="quiet p-3">Write brand, category or an attribute first; proposals are made of them.</p>;
  return (
    <div className="space-y-4 p-3">
      <p className="quiet text-[12px]">
        {column
          ? `For ${column.name}, within its limits; kept for ${column.name} alone.`
          : 'For the item itself. Choose a marketplace above for one of its own.'}
      </p>
      {data.proposals.map((proposal) => {
        const present = presentOf(proposal, item, column);
        const whole = Array.isArray(proposal.value) ? proposal.value.join(', ') : proposal.value;
        return (
          <section key={`${proposal.maker}-${proposal.field}`} aria-label={`Proposal for ${names[proposal.field]}`}>
            <h3 className="flex items-baseline gap-2">
              <b className="font-medium">{names[proposal.field]}</b>
              <span className="quiet text-[11px]">{proposal.maker}</span>
            </h3>
            <p className="quiet text-[12px]">Now: {plain(present) || 'nothing'}</p>
            <p className="my-1 rounded bg-base-200 px-2 py-1 wrap-anywhere">{plain(whole)}</p>
            <button
              type="button"
              className="btn btn-xs"
              disabled={whole === present}
              onClick={() => take(proposal, proposal.value)}
            >
              Take all of it
            </button>
            <ul className="mt-1 space-y-0.5 text-[12px]">
              {proposal.parts.map((part) => (
                <li key={part.text} className="flex items-baseline gap-2">
                  <button
                    type="button"
                    className="shrink-0 rounded border border-base-300 px-1 hover:bg-base-200"
                    aria-label={`Add ${plain(part.text)} to ${names[proposal.field]}`}
                    onClick={() => takePart(proposal, part.text)}
                  >
                    + {plain(part.text).slice(0, 32)}
                  </button>
                  <span className="quiet">{part.why}</span>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </div>
  );
}
