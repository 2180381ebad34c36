import { conditionLabel } from '@/core/item/condition';
import { formatMoney, homeCurrency } from '@/core/measure/money';
import type { LineView } from '@/services/intake/line-view';
import { Thumbnail } from '@/ui/controls/item-cell';
import { Link } from '@/ui/controls/link';
import { LookUps } from '@/ui/controls/look-ups';
import { useAccounts } from '@/ui/data/accounts';
import { Offers } from './offers';
import { toneOf } from './tone-of';

const money = (amount: number) => formatMoney(amount, homeCurrency);

type Props = { line: LineView | null; choose: (entry: string) => void; setPrice: (price: number) => void };

/** The piece that is in the hand: large enough to be read from where one stands. */
export function LastPiece({ line, choose, setPrice }: Props) {
  const { accountOf } = useAccounts();
  if (!line)
    return (
      <div className="flex min-h-44 flex-col justify-center rounded border-l-8 border-base-300 bg-base-200 px-4 py-3">
        <p className="text-lg">Scan the first piece</p>
        <p className="quiet">
          Its line stands at once. What it is, what such things bring and what is still missing appears here.
        </p>
      </div>
    );
  const tone = toneOf(line);
  const { item, needs, best, sales } = line;
  const shown = item?.title || line.code || line.scanned;
  return (
    <section
      aria-label="Last piece"
      className={`min-h-44 rounded border-l-8 bg-base-200 px-4 py-3 ${tone.edge} ${line.isUndone ? 'line-through' : ''}`}
    >
      <div className="flex flex-wrap items-baseline gap-x-4">
        <strong className={`text-lg ${tone.ink}`}>{tone.words}</strong>
        {item ? (
          <Link className="mono text-2xl hover:underline" href={`/items/${item.id}`}>
            {item.sku}
          </Link>
        ) : null}
        {item?.location ? <span className="mono text-xl">{item.location}</span> : null}
        {line.units > 1 ? <span className="figures text-xl">× {line.units}</span> : null}
        {item && item.price !== null ? (
          <span className="figures ml-auto text-xl">
            {money(item.price)}
            {best ? (
              <span className="quiet ml-3 text-base">
                net {money(best.net)} on {accountOf(best.accountId)?.name ?? 'the best account'}
              </span>
            ) : null}
          </span>
        ) : null}
      </div>
      <div className="mt-1 flex items-center gap-2">
        {item?.photo ? <Thumbnail photo={item.photo} /> : null}
        <p className="min-w-0 flex-1 text-base wrap-anywhere">
          {shown}
          {item?.condition ? <span className="quiet"> · {conditionLabel(item.condition)}</span> : null}
        </p>
      </div>
      {line.said && line.kind !== 'none' ? <p className="quiet">{line.said}</p> : null}
      {line.leave ? <p className="font-semibold text-error">Leave it: {line.leave}</p> : null}
      {sales ? (
        <p className="quiet figures">
          Sold for {money(sales.median)} in the middle ({money(sales.low)} to {money(sales.high)}, {sales.count} sales
          {sales.daysOnSale === null ? '' : `, after ${sales.daysOnSale} days`})
        </p>
      ) : null}
      {needs.map((need) => (
        <p key={need.words} className="font-medium text-warning">
          {need.words}
          {need.what === 'grade' ? ' Type its number, or scan its label' : ''}
          {need.what === 'price' ? ' Type the amount' : ''}
          {need.what === 'code' ? '. It is kept below, to be mended or thrown away' : ''}
        </p>
      ))}
      {needs.some((need) => need.what === 'entry') ? (
        <ol className="mt-1 space-y-0.5">
          {line.found.map((one, index) => (
            <li key={one.entry}>
              <button type="button" className="text-left hover:underline" onClick={() => choose(one.entry)}>
                <kbd className="mono mr-1">{index + 1}</kbd>
                {one.name} <span className="quiet">{one.from}</span>
              </button>
            </li>
          ))}
        </ol>
      ) : null}
      {item ? (
        <LookUps
          facts={{ barcode: line.code, title: item.title, brand: item.brand, model: item.model, sku: item.sku }}
        />
      ) : null}
      <Offers key={line.id} line={line} setPrice={setPrice} />
      {line.silent.length ? <p className="quiet text-[12px]">{line.silent.join('. ')}</p> : null}
    </section>
  );
}
