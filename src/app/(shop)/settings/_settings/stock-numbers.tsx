'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { readSkuPattern, skuFrame, skuIn } from '@/core/item/sku-pattern';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { keepSettings } from '@/ui/data/keep-settings';
import { useCommand } from '@/ui/data/use-command';

const parts: [string, string][] = [
  ['{seq}', 'a running number, needed once; {seq:5} has five digits'],
  ['{bin}', 'the place'],
  ['{supplier:3}', 'the first three letters of the supplier'],
  ['{brand:3}', 'of the brand'],
  ['{category:3}', 'of the last part of the category'],
  ['{yyyy} {yy} {mm} {dd}', 'the day'],
  ['{week}', 'the week of the year'],
];

/** How stock numbers are made, with an example while it is typed. */
export function StockNumbers() {
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['settings'],
    queryFn: () => api('GET /settings'),
  });
  const [typed, setTyped] = useState<string | null>(null);
  const save = useCommand(
    async () => {
      if (typed === null) return undefined;
      const said = 'New items get their numbers by this pattern; those that are given stay';
      const kept = await keepSettings({ skuPattern: typed }, said);
      setTyped(null);
      return kept;
    },
    { touches: [['settings']], tells: true },
  );
  if (isPending) return <Loading what="the settings" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const pattern = typed ?? data.skuPattern;
  const read = readSkuPattern(pattern);
  const facts = { location: 'B12', supplier: 'Quay auction', brand: 'Brask', category: 'cameras/slr', day: new Date() };
  return (
    <section aria-labelledby="stock-numbers">
      <h2 id="stock-numbers" className="mb-2 font-semibold">
        Stock numbers
      </h2>
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void save.run();
        }}
      >
        <label className="flex flex-col text-[12px]">
          Pattern
          <input
            className="input input-sm mono w-72 max-w-full"
            value={pattern}
            aria-invalid={'problem' in read}
            aria-describedby="pattern-said"
            onChange={(event) => setTyped(event.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-primary btn-sm" disabled={typed === null || 'problem' in read}>
          Keep the pattern
        </button>
        <p id="pattern-said" className={'problem' in read ? 'text-error' : 'quiet'}>
          {'problem' in read ? (
            read.problem
          ) : (
            <>
              such as <span className="mono">{skuIn(skuFrame(read.parts, facts), 42)}</span>; a part that is empty goes
              away with its sign
            </>
          )}
        </p>
      </form>
      <dl className="quiet mt-2 grid grid-cols-[12rem_1fr] gap-x-3 text-[12px]">
        {parts.map(([part, said]) => (
          <div key={part} className="contents">
            <dt className="mono">{part}</dt>
            <dd>{said}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
