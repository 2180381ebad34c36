'use client';

import { useState } from 'react';
import type { UnlinkedListing } from '@/services/listings/links/find-unlinked';
import { Dialog } from '@/ui/controls/dialog';
import { ItemFinder } from '@/ui/controls/item-finder';

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
  return (
    <Dialog title={`Which item is ${listing.title || listing.remoteId}?`} close={close}>
      <ItemFinder words={listing.sku || listing.title} choose={(id) => void link(id).then((done) => done && close())} />
      <p className="quiet text-[12px]">Nothing changes there; what differs is shown, and you decide.</p>
    </Dialog>
  );
}
