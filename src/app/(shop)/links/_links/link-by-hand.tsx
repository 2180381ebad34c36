'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { UnlinkedListing } from '@/services/listings/find-unlinked';
import { Dialog } from '@/ui/controls/dialog';
import { api } from '@/ui/data/api';

type Props = { listing: UnlinkedListing; link: (itemId: number) => Promise<boolean> };

/** Nothing was recognised in it: a person says which item it is. */
export function LinkByHand({ listing, link }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="btn btn-xs ml-auto"
        aria-label={`Choose the item of ${listing.remoteId}`}
        onClick={() => setOpen(true)}
      >
        Choose the item
      </button>
      {open ? <Choose listing={listing} link={link} close={() => setOpen(false)} /> : null}
    </>
  );
}

function Choose({ listing, link, close }: Props & { close: () => void }) {
  const [words, setWords] = useState(listing.sku || listing.title);
  const found = useQuery({
    queryKey: ['items', 'link', words],
    queryFn: () => api('GET /items', { query: { q: words, limit: 20 } }),
    enabled: words.trim().length > 1,
  });
  return (
    <Dialog title={`Which item is ${listing.title || listing.remoteId}?`} close={close}>
      <label className="block">
        <span className="quiet text-[12px]">Search the inventory</span>
        <input
          data-first
          className="input input-sm w-full"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
      </label>
      <ul className="my-2 max-h-72 overflow-auto rounded border border-base-300" aria-label="Items found">
        {found.data?.items.map((one) => (
          <li key={one.id}>
            <button
              type="button"
              className="w-full px-2 py-1 text-left hover:bg-base-200"
              onClick={() => void link(one.id).then((done) => done && close())}
            >
              {one.title || 'Without a title'} <span className="mono quiet">{one.sku}</span>
            </button>
          </li>
        ))}
        {found.data?.items.length === 0 ? <li className="quiet px-2 py-1">Nothing of that name</li> : null}
        {found.isError ? <li className="px-2 py-1 text-error">The inventory could not be searched</li> : null}
      </ul>
      <p className="quiet text-[12px]">Nothing changes there; what differs is shown, and you decide.</p>
    </Dialog>
  );
}
