'use client';

import { useQuery } from '@tanstack/react-query';
import { amountToText, homeCurrency, parseAmount } from '@/core/measure/money';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { keepSettings } from '@/ui/data/keep-settings';
import { submitted, useCommand } from '@/ui/data/use-command';

/** What packing adds to every parcel's weight, and what it costs; an account may have an allowance of its own. */
export function Packing() {
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['settings'],
    queryFn: () => api('GET /settings'),
  });
  const save = useCommand(
    async (form: FormData) => {
      const share = Number(String(form.get('share')).replace(',', '.'));
      const grams = Number(form.get('grams'));
      const amount = (name: string) => parseAmount(String(form.get(name)), homeCurrency);
      const [cost, kilo, hourly] = [amount('cost'), amount('kilo'), amount('hourly')];
      const minutes = Number(form.get('minutes'));
      if (!(share >= 0 && share <= 100)) throw new Error('The share of the weight lies between 0 and 100 %');
      if (!Number.isInteger(grams) || grams < 0) throw new Error('The least weight is a whole number of grams');
      const amounts = [cost, kilo, hourly];
      if (amounts.includes(null)) throw new Error('An amount is not understood; write it as in 0.60');
      if (!Number.isInteger(minutes) || minutes < 0) throw new Error('The minutes are a whole number');
      const body = {
        packaging: { basisPoints: Math.round(share * 100), atLeastGrams: grams },
        packingCost: cost ?? 0,
        packingPerKilo: kilo ?? 0,
        packingMinutes: minutes,
        hourlyRate: hourly ?? 0,
      };
      return keepSettings(body, 'Kept; weights and nets are reckoned with it now');
    },
    { touches: [['settings'], ['items'], ['prices']] },
  );
  if (isPending) return <Loading what="the settings" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const { packaging, packingCost, packingPerKilo, packingMinutes, hourlyRate } = data;
  const field = (name: string, label: string, value: string) => (
    <label className="flex flex-col text-[12px]">
      {label}
      <input
        className="input input-sm figures w-32"
        inputMode="decimal"
        name={name}
        required
        defaultValue={value}
        key={value}
      />
    </label>
  );
  return (
    <section aria-labelledby="packing">
      <h2 id="packing" className="mb-2 font-semibold">
        Packing
      </h2>
      <form className="flex flex-wrap items-end gap-3" onSubmit={submitted((form) => void save.run(form))}>
        {field('share', 'Adds to the weight, %', String(packaging.basisPoints / 100))}
        {field('grams', 'but at least, grams', String(packaging.atLeastGrams))}
        {field('cost', `Costs a parcel, ${homeCurrency}`, amountToText(packingCost, homeCurrency))}
        {field('kilo', 'and each kilogram', amountToText(packingPerKilo, homeCurrency))}
        {field('minutes', 'Takes, minutes', String(packingMinutes))}
        {field('hourly', 'An hour of yours, or 0', amountToText(hourlyRate, homeCurrency))}
        <button type="submit" className="btn btn-sm" disabled={save.busy}>
          Keep the packing
        </button>
        {save.problem ? (
          <p role="alert" className="text-error">
            {save.problem}
          </p>
        ) : null}
      </form>
      <p className="quiet mt-1 text-[12px]">
        Marketplaces are told the packed weight. A marketplace where you pack otherwise has its own figures on its page;
        a box may have a cost of its own under Postage.
      </p>
    </section>
  );
}
