import type { AccountView } from '@/services/accounts/find-accounts';
import type { TriedTemplate } from '@/services/listings/templates/try-template';
import { Link } from '@/ui/controls/link';

const shown = (value: unknown): string =>
  (Array.isArray(value) ? value.join(', ') : String(value ?? '')).replace(/<[^>]*>/g, ' ').slice(0, 220);

/** What the template would do, before anything is kept: which listings, from what to what. */
export function Trial({ tried, accounts }: { tried: TriedTemplate | null; accounts: AccountView[] }) {
  if (!tried)
    return (
      <p className="quiet sticky top-12 self-start rounded border border-base-300 p-4">
        Try it out to see which listings it would change, and how. Nothing is kept by that.
      </p>
    );
  const name = (id: number) => accounts.find((one) => one.id === id)?.name ?? '';
  return (
    <div className="sticky top-12 min-w-0 self-start" role="status">
      <p className="mb-2">
        <b className="figures">{tried.changed}</b> of {tried.looked} listings would change; it applies to{' '}
        {tried.applies}.{tried.more ? ' More listings were not looked at.' : ''}
        {tried.ties.length ? ` Equally specific: ${tried.ties.join(', ')}; the older one wins.` : ''}
      </p>
      <ul className="max-h-[38rem] divide-y divide-base-300/60 overflow-auto">
        {tried.listings.map((one) => (
          <li key={`${one.itemId}/${one.accountId}`} className="py-2 text-[13px]">
            <Link className="underline" href={`/items/${one.itemId}/preview?account=${one.accountId}`}>
              <span className="mono">{one.sku}</span> on {name(one.accountId)}
            </Link>
            {one.changes.map((change) => (
              <div key={change.field} className="mt-1 grid grid-cols-[6rem_1fr_1fr] gap-2">
                <span className="quiet">{change.field}</span>
                <del className="quiet line-clamp-3 wrap-anywhere">{shown(change.from)}</del>
                <span className="line-clamp-3 wrap-anywhere">{shown(change.to)}</span>
              </div>
            ))}
            {one.problems.map((problem) => (
              <p key={problem} className="text-warning">
                {problem}
              </p>
            ))}
          </li>
        ))}
      </ul>
    </div>
  );
}
