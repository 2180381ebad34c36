'use client';

import { useQuery } from '@tanstack/react-query';
import { useDeferredValue, useMemo, useState } from 'react';
import { parseLength } from '@/core/measure/length';
import { formatWeight, parseWeight } from '@/core/measure/weight';
import { type Band, bandLabels } from '@/core/price/postage';
import { Price } from '@/ui/controls/format';
import { Failed } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

/** What each carrier asks for a parcel, by the weight that counts, at once while it is typed. */
export function Quotes() {
  const [weight, setWeight] = useState('840 g');
  const [size, setSize] = useState('26 × 20 × 16 cm');
  const [band, setBand] = useState<Band>('home');
  const grams = parseWeight(weight);
  const unit = /[a-z"]+\s*$/i.exec(size)?.[0] ?? 'mm';
  const lengths = size
    .replace(/[a-z"]+\s*$/i, '')
    .split(/[×x*]/)
    .map((side) => parseLength(`${side.trim()} ${unit}`));
  const [lengthMm, widthMm, heightMm] = lengths;
  const parcel = useMemo(
    () => ({
      grams: grams ?? 0,
      band,
      ...(lengthMm && widthMm && heightMm ? { lengthMm, widthMm, heightMm } : {}),
    }),
    [grams, band, lengthMm, widthMm, heightMm],
  );
  const settled = useDeferredValue(parcel);
  const { data, isLoadingError, error, refetch } = useQuery({
    queryKey: ['quotes', settled],
    queryFn: () => api('GET /postage', { query: settled }),
    enabled: grams !== null,
  });
  const renew = useCommand(
    async () => {
      await api('POST /postage/tariffs');
      return 'The tariffs are read anew';
    },
    { touches: [['quotes']], tells: true },
  );
  return (
    <section aria-labelledby="quotes">
      <h2 id="quotes" className="mb-2 font-semibold">
        What carriers ask
      </h2>
      <div className="grid grid-cols-2 gap-2">
        <label className="flex flex-col text-[12px]">
          Weight
          <input
            className="input input-sm w-full"
            value={weight}
            onChange={(event) => setWeight(event.target.value)}
            aria-invalid={grams === null}
          />
        </label>
        <label className="flex flex-col text-[12px]">
          Going
          <select
            className="select select-sm w-full"
            value={band}
            onChange={(event) => setBand(bandLabels.find(([id]) => id === event.target.value)?.[0] ?? 'home')}
          >
            {bandLabels.map(([id, label]) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </select>
        </label>
        <label className="col-span-2 flex flex-col text-[12px]">
          Length × width × height
          <input className="input input-sm w-full" value={size} onChange={(event) => setSize(event.target.value)} />
        </label>
      </div>
      {grams === null ? (
        <p role="alert" className="mt-2 text-error">
          The weight is not understood; write it as in 840 g, 1.2 kg or 1 lb 3 oz
        </p>
      ) : null}
      <ul className="mt-3 divide-y divide-base-300/60">
        {data?.quotes.map((quote) => (
          <li key={quote.carrier} className="flex items-baseline gap-3 py-1.5">
            <span className="flex-1">{quote.name}</span>
            <span className="quiet figures text-[12px]">counts {formatWeight(quote.countedGrams)}</span>
            <b>
              <Price amount={quote.amount} />
            </b>
          </li>
        ))}
      </ul>
      {isLoadingError ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data?.quotes.length === 0 ? (
        <p className="quiet mt-2">No carrier takes this parcel, or no tariff was read yet.</p>
      ) : null}
      <button type="button" className="btn btn-sm mt-3" disabled={renew.busy} onClick={() => void renew.run()}>
        {renew.busy ? 'Reading the tariffs …' : 'Read the tariffs anew'}
      </button>
    </section>
  );
}
