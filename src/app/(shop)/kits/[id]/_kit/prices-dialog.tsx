'use client';

import { useState } from 'react';
import { roundingLabels } from '@/core/edit/verbs/amounts';
import { conditionGrades } from '@/core/item/condition';
import { type LotPricing, measureWords, priceMeasures, priceWindows, usualWorth } from '@/core/kit/lot-price';
import { homeCurrency, parseAmount } from '@/core/measure/money';
import { type RoundingName, roundingNames } from '@/core/measure/rounding';
import type { KitView, LotView } from '@/services/kits/find-kit';
import { AmountField } from '@/ui/controls/amount-field';
import { Dialog } from '@/ui/controls/dialog';
import { Field } from '@/ui/controls/field';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';

type Props = { kit: KitView; lots: LotView[]; marked: ReadonlySet<number>; close: () => void };

const signedAmount = (text: string): number | null =>
  text.trim() === '' ? 0 : parseAmount(text.replace('+', ''), homeCurrency);

/** How lots are priced by what such things sold for. */
export function PricesDialog({ kit, lots, marked, close }: Props) {
  const { id, pricing } = kit;
  const [leastNet, setLeastNet] = useState<number | null>(pricing?.leastNet ?? null);
  const price = useCommand(
    async (form: FormData) => {
      const percent = Number(
        String(form.get('percent') || 0)
          .replace(',', '.')
          .replace('−', '-'),
      );
      const amount = signedAmount(String(form.get('amount')));
      if (!Number.isFinite(percent)) throw new Error('Up or down: a percentage such as -5');
      if (amount === null) throw new Error('Then an amount: such as -0.50');
      const worth: LotPricing['worth'] = {};
      for (const grade of conditionGrades) {
        const said = Number(form.get(`worth-${grade.id}`));
        if (said > 0 && said !== usualWorth[grade.id]) worth[grade.id] = said;
      }
      const which = String(form.get('which'));
      const chosen =
        which === 'marked'
          ? [...marked]
          : which === 'unpriced'
            ? lots.filter((lot) => lot.price === null).map((lot) => lot.id)
            : undefined;
      if (chosen?.length === 0) throw new Error('There are no such lots');
      await api('POST /kits/{id}/pricing', {
        params: { id },
        body: {
          lots: chosen,
          anew: form.get('anew') !== null,
          how: {
            measure: String(form.get('measure')) as LotPricing['measure'], // one of the options below
            days: Number(form.get('days')) as LotPricing['days'], // one of the options below
            least: Number(form.get('least')),
            basisPoints: Math.round(percent * 100),
            amount,
            rounding: String(form.get('rounding')) as RoundingName, // one of the options below
            leastNet,
            worth,
          },
        },
      });
      close();
      return undefined;
    },
    { touches: [['kit', id], ['tasks']] },
  );
  const options = [
    ['all', 'all lots'],
    ['unpriced', 'those without a price'],
    ...(marked.size ? [['marked', `the ${marked.size.toLocaleString('en')} chosen ones`]] : []),
  ] as const;
  return (
    <Dialog title="Prices from comparable sales" close={close}>
      <form className="space-y-4" onSubmit={submitted((form) => price.run(form))}>
        <div className="grid grid-cols-2 gap-3">
          <label className="block font-medium">
            <span className="mb-1 block">For</span>
            <select
              className="select select-sm w-full"
              name="which"
              defaultValue={marked.size ? 'marked' : 'all'}
              data-first
            >
              {options.map(([value, words]) => (
                <option key={value} value={value}>
                  {words}
                </option>
              ))}
            </select>
          </label>
          <label className="block font-medium">
            <span className="mb-1 block">Measure</span>
            <select className="select select-sm w-full" name="measure" defaultValue={pricing?.measure ?? 'median'}>
              {priceMeasures.map((one) => (
                <option key={one} value={one}>
                  {measureWords[one]}
                </option>
              ))}
            </select>
          </label>
          <label className="block font-medium">
            <span className="mb-1 block">Sales of the last</span>
            <select className="select select-sm w-full" name="days" defaultValue={pricing?.days ?? 180}>
              {priceWindows.map((one) => (
                <option key={one} value={one}>
                  {one} days
                </option>
              ))}
            </select>
          </label>
          <Field
            label="At least so many sales"
            name="least"
            type="number"
            min={1}
            max={50}
            required
            defaultValue={pricing?.least ?? 3}
          />
        </div>
        <p className="quiet text-[12px]">
          Where there are fewer: over a longer time; then other conditions, counted by their worth; other finishes; what
          is on offer now; things of the same kind. Each price says which it was.
        </p>
        <div className="grid grid-cols-4 gap-3 [&_label]:text-[12px] [&_label]:font-normal">
          <Field
            label="Up or down, %"
            name="percent"
            inputMode="decimal"
            placeholder="-5"
            defaultValue={pricing?.basisPoints ? pricing.basisPoints / 100 : ''}
          />
          <Field
            label="Then an amount"
            name="amount"
            inputMode="decimal"
            placeholder="-0.50"
            defaultValue={pricing?.amount ? (pricing.amount / 100).toFixed(2) : ''}
          />
          <label className="block font-medium">
            <span className="mb-1 block">Ending</span>
            <select className="select select-sm w-full" name="rounding" defaultValue={pricing?.rounding ?? 'none'}>
              {roundingNames.map((one) => (
                <option key={one} value={one}>
                  {roundingLabels[one]}
                </option>
              ))}
            </select>
          </label>
          <AmountField label="Net at least" amount={leastNet} set={setLeastNet} />
        </div>
        <details>
          <summary className="cursor-pointer text-[13px]">What conditions are worth, in percent</summary>
          <div className="mt-2 grid grid-cols-3 gap-2 text-[12px]">
            {conditionGrades.map((grade) => (
              <label key={grade.id} className="flex items-center justify-between gap-2">
                {grade.label}
                <input
                  className="input input-xs figures w-16 text-right"
                  name={`worth-${grade.id}`}
                  type="number"
                  min={1}
                  max={1_000}
                  defaultValue={pricing?.worth[grade.id] ?? usualWorth[grade.id]}
                />
              </label>
            ))}
          </div>
        </details>
        <label className="flex items-center gap-2">
          <input type="checkbox" className="checkbox checkbox-sm" name="anew" />
          Ask again, also what was heard within the last day
        </label>
        {price.problem ? (
          <p role="alert" className="text-error">
            {price.problem}
          </p>
        ) : null}
        <button type="submit" className="btn btn-primary btn-sm" disabled={price.busy}>
          Price them
        </button>
      </form>
    </Dialog>
  );
}
