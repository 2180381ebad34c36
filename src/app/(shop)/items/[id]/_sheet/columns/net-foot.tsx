'use client';

import type { SheetColumn } from '@/services/items/item-sheet';
import { Price } from '@/ui/controls/format';

/** What this marketplace leaves, at the foot of its column; a click opens the way to another price. */
export function NetFoot({ column, open }: { column: SheetColumn; open: () => void }) {
  const { net, currency } = column;
  if (!net) return <span className="quiet">no price yet</span>;
  const parts = `Price ${net.price / 100}, commission ${net.fees.commission / 100}, payment ${net.fees.payment / 100}, listing ${net.fees.listing / 100}, postage ${net.postage / 100}, packing ${net.packaging / 100}, cost ${net.cost / 100}`;
  return (
    <button type="button" tabIndex={-1} title={parts} className="block w-full text-left" onClick={open}>
      <b className="font-semibold">
        <Price amount={net.net} currency={currency} tone />
      </b>{' '}
      <span className="quiet figures">{(net.margin / 100).toFixed(0)} %</span>
      <span className="quiet block text-[11px]">
        fees <Price amount={net.fees.total} currency={currency} />
        {net.postage ? (
          <>
            , postage <Price amount={net.postage} currency={currency} />
          </>
        ) : null}
      </span>
    </button>
  );
}
