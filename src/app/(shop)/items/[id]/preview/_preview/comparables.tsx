'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import {
  Bar,
  BarChart,
  CartesianGrid,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { Item } from '@/core/item/item';
import { formatMoney } from '@/core/measure/money';
import { AsFile } from '@/ui/controls/as-file';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';

const windows = [30, 90, 180, 365];
const ink = 'var(--color-base-content)';
const accent = 'var(--color-primary)';

/** What such things sold for lately: figures, their spread, their course, and the outliers; a figure can be taken over. */
export function Comparables({ itemId, item, changed }: { itemId: number; item: Item; changed: () => void }) {
  const [days, setDays] = useState(180);
  const [condition, setCondition] = useState('');
  const query = { days, condition: condition || undefined };
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['comparables', itemId, query],
    queryFn: () => api('GET /items/{id}/comparables', { params: { id: itemId }, query }),
    placeholderData: keepPreviousData,
  });
  const take = useCommand(
    async (price: number) => {
      await api('PATCH /items/{id}', { params: { id: itemId }, body: { baseVersion: item.version, patch: { price } } });
      changed();
      return `The item’s price is ${money(price)} now`;
    },
    { tells: true },
  );
  if (isPending) return <Loading what="comparable sales" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const { statistics } = data;
  const money = (minor: number) => formatMoney(minor, item.currency);
  return (
    <section aria-labelledby="comparables" className="border-t border-base-300 p-4">
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <h2 id="comparables" className="font-semibold">
          What such things sold for
        </h2>
        <div role="group" aria-label="Window" className="join">
          {windows.map((one) => (
            <button
              key={one}
              type="button"
              aria-pressed={one === days}
              className={`btn btn-xs join-item ${one === days ? 'btn-neutral' : ''}`}
              onClick={() => setDays(one)}
            >
              {one} days
            </button>
          ))}
        </div>
        {data.conditions.length ? (
          <select
            aria-label="Condition there"
            className="select select-xs w-36"
            value={condition}
            onChange={(event) => setCondition(event.target.value)}
          >
            <option value="">every condition</option>
            {data.conditions.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        ) : null}
        {data.converted.map(({ currency: from, date }) => (
          <span key={from} className="quiet">
            From {from} by the rate of {date}
          </span>
        ))}
        {data.silent.length ? <span className="quiet">{data.silent.join('; ')}</span> : null}
        <AsFile of="GET /items/{id}/comparables/file" what="These sales" params={{ id: itemId }} query={query} />
      </div>
      {statistics ? (
        <div className="grid grid-cols-[16rem_1fr_1fr] gap-6 max-lg:grid-cols-1">
          <dl className="grid grid-cols-[auto_1fr] content-start gap-x-4 gap-y-1">
            <Figure label="Median" value={<Taken price={statistics.median} money={money} take={take.run} />} />
            <Figure label="Middle half" value={`${money(statistics.low)} to ${money(statistics.high)}`} />
            <Figure label="Mean" value={money(statistics.mean)} />
            <Figure label="Sales" value={`${statistics.count}, ${counted(statistics.pieces, 'piece')}`} />
            <Figure
              label="Trend"
              value={
                statistics.trend === null
                  ? 'too few to say'
                  : `${statistics.trend > 0 ? '+' : '−'}${Math.abs(statistics.trend / 100).toFixed(0)} % a year`
              }
            />
            <Figure
              label="Gone after"
              value={statistics.daysOnSale === null ? 'nobody told' : `${statistics.daysOnSale} days, half of them`}
            />
            <Figure
              label="On offer now"
              value={
                data.present.count
                  ? `${data.present.count}, from ${money(data.present.low ?? 0)}, median ${money(data.present.median ?? 0)}`
                  : 'none seen'
              }
            />
            <Figure
              label="Outliers"
              value={
                statistics.outliers.length ? statistics.outliers.map((one) => money(one.price)).join(', ') : 'none'
              }
            />
          </dl>
          <figure>
            <figcaption className="quiet mb-1">Pieces by price</figcaption>
            <ResponsiveContainer width="100%" height={190}>
              <BarChart data={data.distribution} margin={{ left: -20, right: 8 }} accessibilityLayer>
                <CartesianGrid vertical={false} stroke="var(--color-base-300)" />
                <XAxis
                  dataKey="from"
                  tickFormatter={(value: number) => String(Math.round(value / 100))}
                  stroke={ink}
                  fontSize={11}
                />
                <YAxis allowDecimals={false} stroke={ink} fontSize={11} />
                <Tooltip
                  labelFormatter={(value) => `from ${money(Number(value))}`}
                  contentStyle={{ background: 'var(--color-base-100)', borderColor: 'var(--color-base-300)' }}
                />
                <Bar dataKey="pieces" fill={accent} isAnimationActive={false} />
              </BarChart>
            </ResponsiveContainer>
          </figure>
          <figure>
            <figcaption className="quiet mb-1">Single sales over time, the line is the median</figcaption>
            <ResponsiveContainer width="100%" height={190}>
              <ScatterChart margin={{ left: -8, right: 8 }} accessibilityLayer>
                <CartesianGrid stroke="var(--color-base-300)" vertical={false} />
                <XAxis
                  type="number"
                  dataKey="day"
                  domain={['dataMin', 'dataMax']}
                  tickFormatter={(value: number) => new Date(value).toISOString().slice(5, 10)}
                  stroke={ink}
                  fontSize={11}
                />
                <YAxis
                  type="number"
                  dataKey="price"
                  tickFormatter={(value: number) => String(Math.round(value / 100))}
                  stroke={ink}
                  fontSize={11}
                />
                <ReferenceLine y={statistics.median} stroke={ink} strokeDasharray="4 3" />
                <Tooltip
                  formatter={(value, name) =>
                    name === 'price' ? money(Number(value)) : new Date(Number(value)).toISOString().slice(0, 10)
                  }
                  contentStyle={{ background: 'var(--color-base-100)', borderColor: 'var(--color-base-300)' }}
                />
                <Scatter
                  data={data.sales.map((sale) => ({ day: Date.parse(sale.date), price: sale.price }))}
                  fill={accent}
                  isAnimationActive={false}
                />
              </ScatterChart>
            </ResponsiveContainer>
          </figure>
        </div>
      ) : (
        <p className="quiet">
          No sale of such a thing was found in these {days} days. Take a longer window, or find the product in a
          catalogue first.
        </p>
      )}
    </section>
  );
}

function Figure({ label, value }: { label: string; value: React.ReactNode }) {
  return (
    <>
      <dt className="quiet">{label}</dt>
      <dd className="figures">{value}</dd>
    </>
  );
}

function Taken({
  price,
  money,
  take,
}: {
  price: number;
  money: (minor: number) => string;
  take: (price: number) => Promise<unknown>;
}) {
  return (
    <span className="flex items-center gap-2">
      <b>{money(price)}</b>
      <button type="button" className="btn btn-xs" onClick={() => void take(price)}>
        Take over
      </button>
    </span>
  );
}
