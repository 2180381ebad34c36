'use client';

import { keepPreviousData, useQuery } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import { parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { useState } from 'react';
import { comparisons, lastDays } from '@/core/insight/period';
import type { InsightTable as Table } from '@/core/insight/table';
import { ChoiceButtons } from '@/ui/controls/choice-buttons';
import { Failed, Loading, PageHead } from '@/ui/controls/states';
import { AccountSelect } from '@/ui/data/accounts';
import { api } from '@/ui/data/api';
import { Behind } from './behind';
import { InsightTable } from './insight-table';
import { NarrowedBy } from './narrowed-by';
import { Totals } from './totals';

const chart = (name: 'TimeChart' | 'AgeChart' | 'CohortChart' | 'SpeedChart' | 'BestChart' | 'EffectChart') =>
  dynamic(() => import('./charts').then((module) => module[name]));
const charts: Record<string, React.ComponentType<{ table: Table; currency: string }>> = {
  time: chart('TimeChart'),
  ages: chart('AgeChart'),
  cohorts: chart('CohortChart'),
  curve: chart('SpeedChart'),
  best: chart('BestChart'),
  effects: chart('EffectChart'),
};

const views = ['money', 'stock', 'speed', 'best', 'effects'] as const;
const viewWords = {
  money: 'Money',
  stock: 'Stock',
  speed: 'How fast',
  best: 'Best and worst',
  effects: 'What it brought',
};
const groupings = ['item', 'category', 'brand', 'supplier', 'batch', 'condition', 'price'] as const;
const groupingWords = {
  item: 'item',
  category: 'category',
  brand: 'brand',
  supplier: 'supplier',
  batch: 'batch',
  condition: 'condition',
  price: 'price',
};
const comparisonWords = { before: 'the time before', year: 'a year ago', none: 'nothing' };
const spans = [
  [30, '30 days'],
  [90, '90 days'],
  [365, 'A year'],
  [548, '18 months'],
] as const;
const today = () => new Date().toISOString().slice(0, 10);

/** What was sold, what it left, what lies here and for how long, and what was worth doing. */
export function Insights() {
  const [asked, setAsked] = useQueryStates(
    {
      view: parseAsStringLiteral(views).withDefault('money'),
      from: parseAsString,
      to: parseAsString,
      against: parseAsStringLiteral(comparisons).withDefault('before'),
      by: parseAsStringLiteral(groupings).withDefault('category'),
      soldOn: parseAsInteger,
      where: parseAsString,
    },
    { history: 'replace' },
  );
  const [behind, setBehind] = useState<{ title: string; of: Record<string, string> } | null>(null);
  const period = asked.from && asked.to ? { from: asked.from, to: asked.to } : lastDays(365, today());
  const query = {
    view: asked.view,
    ...period,
    against: asked.against,
    by: asked.by,
    soldOn: asked.soldOn ?? undefined,
    where: asked.where ?? undefined,
  };
  const { data, isPending, error, refetch, isPlaceholderData } = useQuery({
    queryKey: ['insights', query],
    queryFn: () => api('GET /insights', { query }),
    placeholderData: keepPreviousData,
    // What is still being read is there soon.
    refetchInterval: (one) => (one.state.data?.isWhole === false ? 2_000 : false),
  });
  const open = (title: string, of: Record<string, string>) => setBehind({ title, of });
  const isBackward = period.from > period.to;
  return (
    <>
      <PageHead title="Insights">
        <ChoiceButtons
          legend="View"
          options={views}
          words={viewWords}
          value={asked.view}
          choose={(view) => void setAsked({ view })}
        />
      </PageHead>
      <div className="flex flex-wrap items-center gap-2 border-b border-base-300 px-4 py-2 text-[13px]">
        <fieldset className="flex gap-1">
          <legend className="sr-only">Period</legend>
          {spans.map(([days, words]) => {
            const span = lastDays(days, today());
            const isOn = span.from === period.from && span.to === period.to;
            return (
              <button
                key={days}
                type="button"
                aria-pressed={isOn}
                className={`btn btn-sm ${isOn ? 'bg-base-300' : 'btn-ghost'}`}
                onClick={() => void setAsked(span)}
              >
                {words}
              </button>
            );
          })}
        </fieldset>
        <input
          type="date"
          aria-label="First day"
          className="input input-sm w-36"
          value={period.from}
          onChange={(event) => event.target.value && void setAsked({ ...period, from: event.target.value })}
        />
        <span>to</span>
        <input
          type="date"
          aria-label="Last day"
          aria-invalid={isBackward || undefined}
          className="input input-sm w-36"
          value={period.to}
          onChange={(event) => event.target.value && void setAsked({ ...period, to: event.target.value })}
        />
        {asked.view === 'money' ? (
          <span className="flex items-center gap-2">
            beside
            <select
              aria-label="Compared with"
              className="select select-sm w-40"
              value={asked.against}
              onChange={(event) => void setAsked({ against: event.target.value as (typeof comparisons)[number] })} // the values of its options
            >
              {comparisons.map((one) => (
                <option key={one} value={one}>
                  {comparisonWords[one]}
                </option>
              ))}
            </select>
          </span>
        ) : null}
        {asked.view === 'best' || asked.view === 'speed' ? (
          <span className="flex items-center gap-2">
            by
            <select
              aria-label="Grouped by"
              className="select select-sm w-32"
              value={asked.view === 'speed' && asked.by === 'item' ? 'category' : asked.by}
              onChange={(event) => void setAsked({ by: event.target.value as (typeof groupings)[number] })} // the values of its options
            >
              {groupings
                .filter((one) => asked.view === 'best' || one !== 'item')
                .map((one) => (
                  <option key={one} value={one}>
                    {groupingWords[one]}
                  </option>
                ))}
            </select>
          </span>
        ) : null}
        <AccountSelect value={asked.soldOn} choose={(soldOn) => void setAsked({ soldOn })} all="Everywhere" />
        <NarrowedBy where={asked.where} set={(where) => void setAsked({ where })} />
      </div>
      {isBackward ? (
        <p role="alert" className="px-4 py-2 text-error">
          The last day lies before the first.
        </p>
      ) : null}
      {isPending && !isBackward ? <Loading what="what was sold and what lies here" /> : null}
      {error && !isBackward ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data?.isWhole === false ? (
        <p role="status" className="quiet px-4 py-1">
          Not everything has been read yet; the figures follow.
        </p>
      ) : null}
      {data && !error ? (
        <div className={isPlaceholderData ? 'opacity-60' : ''} aria-busy={isPlaceholderData}>
          {data.tables.map((table) => {
            const Chart = charts[table.id];
            return (
              <InsightTable
                key={table.id}
                table={table}
                currency={data.currency}
                asked={query}
                open={open}
                instead={
                  table.id === 'total' ? <Totals table={table} currency={data.currency} open={open} /> : undefined
                }
              >
                {Chart && table.rows.length ? <Chart table={table} currency={data.currency} /> : null}
              </InsightTable>
            );
          })}
        </div>
      ) : null}
      {behind ? (
        <Behind
          title={behind.title}
          behind={behind.of}
          currency={data?.currency ?? 'EUR'}
          close={() => setBehind(null)}
        />
      ) : null}
    </>
  );
}
