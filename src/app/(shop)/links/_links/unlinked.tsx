'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { UnlinkedListing } from '@/services/listings/links/find-unlinked';
import { Price } from '@/ui/controls/format';
import { Failed } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { LinkByHand } from './link-by-hand';

/** So many links are made in one request. */
const atOnce = 500;
const firstShown = 200;

/** What is live on an account and linked with nothing, each with the item that it seems to be. */
export function Unlinked({ account }: { account: AccountView }) {
  const [asked, setAsked] = useState(false);
  const [shown, setShown] = useState(firstShown);
  const [done, setDone] = useState<{ linked: number; total: number } | null>(null);
  const { data, isFetching, error, refetch } = useQuery({
    queryKey: ['unlinked', account.id],
    enabled: asked,
    staleTime: 30_000,
    queryFn: () => api('GET /accounts/{id}/unlinked', { params: { id: account.id } }),
  });
  const matched = data?.unlinked.filter((one) => one.match?.isSure) ?? [];
  const likely = data?.unlinked.filter((one) => one.match && !one.match.isSure).length ?? 0;
  const link = useCommand(
    async (some: UnlinkedListing[], afterwards: 'send' | 'show') => {
      const links = some.flatMap((one) => (one.match ? [{ remoteId: one.remoteId, itemId: one.match.itemId }] : []));
      const told = { linked: 0, refused: [] as { why: string }[] };
      // However many they are: in portions, each of which is done when it is told.
      for (let at = 0; at < links.length; at += atOnce) {
        setDone(links.length > atOnce ? { linked: told.linked, total: links.length } : null);
        const body = { account: account.id, links: links.slice(at, at + atOnce), afterwards };
        const portion = await api('POST /links', { body });
        told.linked += portion.linked;
        told.refused.push(...portion.refused);
      }
      setDone(null);
      return `${told.linked} linked${told.refused.length ? `, ${told.refused.length} not: ${told.refused[0]?.why}` : ''}`;
    },
    { tells: true, touches: [['links'], ['unlinked']] },
  );
  const byHand = useCommand(
    async (remoteId: string, itemId: number) => {
      const body = { account: account.id, links: [{ remoteId, itemId }], afterwards: 'show' as const };
      const { refused } = await api('POST /links', { body });
      if (refused[0]) throw new Error(refused[0].why);
      return `${remoteId} is linked; what differs is shown`;
    },
    { tells: true, touches: [['links'], ['unlinked']] },
  );
  return (
    <section aria-label="Not linked yet" className="border-b border-base-300 px-4 py-2">
      <div className="flex flex-wrap items-center gap-3">
        <button
          type="button"
          className="btn btn-sm"
          disabled={isFetching}
          onClick={() => (asked ? void refetch() : setAsked(true))}
        >
          {isFetching ? `Reading ${account.name} …` : `What on ${account.name} has no link?`}
        </button>
        {data ? (
          <span>
            {data.unlinked.length === 0
              ? 'Everything that is live there is linked.'
              : `${data.unlinked.length} without a link, ${matched.length} of them recognised for certain${likely ? `, ${likely} likely` : ''}.`}
          </span>
        ) : null}
        {matched.length ? (
          <>
            <button type="button" className="btn btn-sm" onClick={() => void link.run(matched, 'show')}>
              Link {matched.length}, change nothing there
            </button>
            <button type="button" className="btn btn-sm" onClick={() => void link.run(matched, 'send')}>
              Link {matched.length} and send ours
            </button>
          </>
        ) : null}
      </div>
      {error ? <Failed error={error} /> : null}
      <ul className="mt-1">
        {data?.unlinked.slice(0, shown).map((one) => (
          <li key={one.remoteId} className="flex items-center gap-3 py-0.5">
            <a className="mono underline" href={one.url} target="_blank" rel="noreferrer">
              {one.remoteId}
            </a>
            <span className="max-w-96 truncate">{one.title || one.sku || 'Without a title'}</span>
            <Price amount={one.price} currency={account.currency} />
            {one.match ? (
              <>
                <span className="quiet min-w-0 truncate" title={one.match.why.join('; ')}>
                  {one.match.isSure ? 'is' : 'perhaps'} {one.match.sku} {one.match.title}: {one.match.why[0]}
                </span>
                <button
                  type="button"
                  className="btn btn-xs ml-auto"
                  aria-label={`Link ${one.remoteId} with ${one.match.sku}`}
                  onClick={() => void link.run([one], 'show')}
                >
                  Link
                </button>
                {one.match.isSure ? null : (
                  <LinkByHand listing={one} link={(itemId) => byHand.run(one.remoteId, itemId)} />
                )}
              </>
            ) : (
              <>
                <span className="quiet">no item of yours is like it</span>
                <LinkByHand listing={one} link={(itemId) => byHand.run(one.remoteId, itemId)} />
              </>
            )}
          </li>
        ))}
      </ul>
      {done ? (
        <p role="status">
          Linked {done.linked} of {done.total} …
        </p>
      ) : null}
      {data && data.unlinked.length > shown ? (
        <button type="button" className="btn btn-sm mt-1" onClick={() => setShown(shown + firstShown)}>
          Show more of them
        </button>
      ) : null}
    </section>
  );
}
