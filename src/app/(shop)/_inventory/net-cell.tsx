import { conditionLabel } from '@/core/item/condition';
import { formatMoney } from '@/core/measure/money';
import type { FoundItem } from '@/services/records/items/find-items';
import { Price } from '@/ui/controls/format';
import { Thumbnail } from '@/ui/controls/item-cell';
import { Knot } from '@/ui/controls/knot';
import { When } from '@/ui/controls/when';
import { type Column, wideEnough } from './columns';

/** What a cell of the net shows. */
export function NetCell({
  item,
  column,
  chosen,
  toggle,
}: {
  item: FoundItem;
  column: Column;
  chosen: boolean;
  toggle: () => void;
}) {
  if (column.kind === 'check') {
    return (
      <input
        type="checkbox"
        tabIndex={-1}
        className="checkbox checkbox-xs"
        checked={chosen}
        aria-label={`Choose ${item.sku}`}
        onChange={toggle}
        onClick={(event) => event.stopPropagation()}
      />
    );
  }
  if (column.kind === 'knot') {
    const knot = item.knots.find((one) => one.accountId === column.accountId);
    return (
      <>
        <Knot state={knot?.state ?? 'none'} where={column.label} />
        {knot && knot.overridePrice !== null && knot.overridePrice !== item.price ? (
          column.width < wideEnough ? (
            <span className="quiet" title={`Own price there: ${formatMoney(knot.overridePrice, item.currency)}`}>
              ·
            </span>
          ) : (
            <span className="quiet ml-1 text-[11px]">
              <Price amount={knot.overridePrice} currency={item.currency} />
            </span>
          )
        ) : null}
      </>
    );
  }
  switch (column.id) {
    case 'title':
      return (
        <>
          <span className="mr-2 shrink-0">
            <Thumbnail
              photo={item.photo}
              instead={<span className="grid h-7 w-7 place-items-center rounded-sm bg-base-300 text-[10px]">–</span>}
            />
          </span>
          <span className="truncate">{item.title || <em className="quiet">Untitled</em>}</span>
        </>
      );
    case 'sku':
      return <span className="mono truncate">{item.sku}</span>;
    case 'condition':
      return <span className="truncate">{conditionLabel(item.condition)}</span>;
    case 'location':
      return <span className="mono">{item.location}</span>;
    case 'quantity':
      return (
        <span
          className={`figures ${item.quantity < 0 ? 'font-semibold text-error' : item.quantity === 0 ? 'quiet' : ''}`}
        >
          {item.quantity}
        </span>
      );
    case 'price':
      return <Price amount={item.price} currency={item.currency} />;
    case 'cost':
      return <Price amount={item.cost} currency={item.currency} />;
    case 'updated':
      return (
        <span className="quiet truncate">
          <When at={item.updatedAt} />
        </span>
      );
    case 'brand':
      return <span className="truncate">{item.brand}</span>;
    default:
      return <span className="truncate">{item.category}</span>;
  }
}
