import type { PriceLine } from '@/services/listings/prices/price-panel';
import { Price } from '@/ui/controls/format';

/** What is left at each lower price at which it may be bought as well: sale price, tiers. */
export function Lower({ line }: { line: PriceLine }) {
  return line.below.map(({ label, price, net }) => (
    <span key={label} className="quiet block text-[11px] whitespace-nowrap">
      {label} <Price amount={price} currency={line.currency} />: <Price amount={net} currency={line.currency} tone />
    </span>
  ));
}
