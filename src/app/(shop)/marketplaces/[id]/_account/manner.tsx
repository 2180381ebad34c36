'use client';

import { useState } from 'react';
import { pricingSchema } from '@/core/price/listing-price';
import { submitted, useCommand } from '@/ui/data/use-command';
import type { AccountPart } from './account-part';
import { useSeen } from './use-seen';

/** How prices and texts are made for this account, unless an item says otherwise. */
export function Manner({ account, changed, again }: AccountPart) {
  const { pricing, packaging } = account;
  const [ownPacking, setOwnPacking] = useState(packaging !== null);
  const keep = useSeen(account, ['footer', 'houseTag', 'language', 'pricing', 'packaging']);
  const save = useCommand(async (form: FormData) => {
    const text = (name: string) => String(form.get(name) ?? '');
    const number = (name: string, label: string) => {
      const read = text(name).trim() === '' ? 0 : Number(text(name).replace(',', '.'));
      if (!Number.isFinite(read)) throw new Error(`${label}: “${text(name)}” is no number`);
      return read;
    };
    const before = await keep({
      footer: text('footer'),
      houseTag: text('houseTag'),
      language: text('language'),
      pricing: {
        mode: pricingSchema.shape.mode.parse(text('mode')),
        basisPoints: Math.round(number('percent', 'Percent') * 100),
        addPostage: form.get('addPostage') === 'on',
        rounding: pricingSchema.shape.rounding.parse(text('rounding')),
      },
      packaging: ownPacking
        ? {
            basisPoints: Math.round(number('allowance', 'Packing') * 100),
            atLeastGrams: Math.round(number('grams', 'Grams')),
          }
        : null,
    });
    changed();
    return {
      text: `${account.name} is saved; its listings are computed anew`,
      back: async () => {
        await keep(before);
        await again();
      },
    };
  });
  return (
    <form onSubmit={submitted(save.run)} className="border-t border-base-300 p-4" aria-labelledby="manner">
      <h2 id="manner" className="mb-2 font-semibold">
        Prices and wording here
      </h2>
      <div className="grid grid-cols-2 gap-3">
        <label className="col-span-2 flex flex-col gap-1">
          Prices are
          <select name="mode" className="select select-sm w-full" defaultValue={pricing.mode}>
            <option value="same">the item’s price</option>
            <option value="percent">the item’s price and so many percent</option>
            <option value="keep">such that the item’s price is left after fees</option>
          </select>
        </label>
        <label className="flex flex-col gap-1">
          Percent
          <input
            name="percent"
            className="input input-sm figures w-full"
            inputMode="decimal"
            defaultValue={pricing.basisPoints / 100}
          />
        </label>
        <label className="flex flex-col gap-1">
          Ending
          <select name="rounding" className="select select-sm w-full" defaultValue={pricing.rounding}>
            <option value="none">to the cent</option>
            <option value="whole">whole amounts</option>
            <option value="half">.50</option>
            <option value="ninety">.90</option>
            <option value="ninetyNine">.99</option>
          </select>
        </label>
        <label className="col-span-2 flex items-center gap-2">
          <input
            type="checkbox"
            name="addPostage"
            className="checkbox checkbox-sm"
            defaultChecked={pricing.addPostage}
          />
          Postage that you pay goes into the price
        </label>
        <label className="col-span-2 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={ownPacking}
            onChange={(event) => setOwnPacking(event.target.checked)}
          />
          Parcels from here are packed otherwise than the shop’s settings say
        </label>
        {ownPacking ? (
          <>
            <label className="flex flex-col gap-1">
              Packing adds, % of the weight
              <input
                name="allowance"
                className="input input-sm figures w-full"
                inputMode="decimal"
                defaultValue={(packaging?.basisPoints ?? 0) / 100}
              />
            </label>
            <label className="flex flex-col gap-1">
              but at least, grams
              <input
                name="grams"
                className="input input-sm figures w-full"
                inputMode="numeric"
                defaultValue={packaging?.atLeastGrams ?? 0}
              />
            </label>
          </>
        ) : null}
        <label className="col-span-2 flex flex-col gap-1">
          Texts here are in another language
          <input
            name="language"
            className="input input-sm w-full"
            defaultValue={account.language}
            maxLength={20}
            placeholder="as they are written; or German, say: proposals for it stand beside the sheet"
          />
        </label>
        <label className="col-span-2 flex flex-col gap-1">
          Line under every description
          <input
            name="footer"
            className="input input-sm w-full"
            defaultValue={account.footer}
            maxLength={500}
            placeholder="May hold {{ brand }} and the like"
          />
        </label>
        <label className="col-span-2 flex flex-col gap-1">
          Tag that always stands last
          <input name="houseTag" className="input input-sm w-full" defaultValue={account.houseTag} maxLength={60} />
        </label>
      </div>
      {account.rate ? (
        <p className="quiet mt-2 text-[12px]">
          1 {account.rate.from} = {(account.rate.millionths / 1e6).toFixed(4)} {account.rate.to}, of {account.rate.date}
        </p>
      ) : null}
      {save.problem ? (
        <p role="alert" className="mt-2 text-error">
          {save.problem}
        </p>
      ) : null}
      <button type="submit" className="btn btn-sm mt-3">
        Keep prices and wording
      </button>
    </form>
  );
}
