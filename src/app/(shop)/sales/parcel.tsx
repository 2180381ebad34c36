'use client';

import { useState } from 'react';
import { amountToText, homeCurrency, parseAmount } from '@/core/measure/money';
import { parseWeight } from '@/core/measure/weight';
import type { SaleView } from '@/services/stock/find-sales';
import { Dialog } from '@/ui/controls/dialog';
import { Price } from '@/ui/controls/format';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';

/** Price, what was taken off, and postage apart, as far as there is any. */
export const paidParts = ({ total, discount, buyerPostage, currency }: SaleView): string =>
  [
    `Price ${amountToText(total, currency)} ${currency}`,
    discount ? `taken off ${amountToText(discount, currency)}` : '',
    buyerPostage ? `postage ${amountToText(buyerPostage, currency)}` : '',
  ]
    .filter(Boolean)
    .join(', ');

/** What the parcel cost: reckoned, until somebody writes down what it did. */
export function Parcel({ sale, done }: { sale: SaleView; done: () => void }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="underline decoration-dotted"
        aria-label={`Parcel of order ${sale.orderId}`}
        title={sale.postageKnown ? 'Written down' : 'Reckoned; write down what it cost'}
        onClick={() => setOpen(true)}
      >
        {sale.postageKnown ? '' : '~ '}
        <Price amount={sale.postage + sale.packing} currency={homeCurrency} />
      </button>
      {open ? (
        <WriteDown
          sale={sale}
          close={() => setOpen(false)}
          done={() => {
            setOpen(false);
            done();
          }}
        />
      ) : null}
    </>
  );
}

function WriteDown({ sale, close, done }: { sale: SaleView; close: () => void; done: () => void }) {
  const save = useCommand(
    async (form: FormData) => {
      const grams = parseWeight(String(form.get('weight')));
      const paid = parseAmount(String(form.get('paid')), homeCurrency);
      if (grams === null || grams < 1) throw new Error('The weight is not understood; write it as in 840 g or 1.2 kg');
      if (paid === null) throw new Error('What it cost is not understood; write it as in 5.95');
      await api('POST /postage', { body: { saleId: sale.id, carrier: String(form.get('carrier')), grams, paid } });
      done();
      return 'Written down; the net of this sale and the cost per pound follow it';
    },
    { touches: [['sales'], ['prices']] },
  );
  return (
    <Dialog title={`The parcel of order ${sale.orderId}`} close={close}>
      <p className="quiet mb-3">
        {sale.postageKnown ? 'Written down' : 'Reckoned'}: <Price amount={sale.postage} currency={homeCurrency} />, and
        packing <Price amount={sale.packing} currency={homeCurrency} />.
      </p>
      <form className="grid grid-cols-3 gap-2" onSubmit={submitted(save.run)}>
        <label className="flex flex-col text-[12px]">
          Carrier
          <input name="carrier" data-first className="input input-sm" required maxLength={40} />
        </label>
        <label className="flex flex-col text-[12px]">
          Weight packed
          <input name="weight" className="input input-sm" required placeholder="840 g" />
        </label>
        <label className="flex flex-col text-[12px]">
          It cost, {homeCurrency}
          <input name="paid" className="input input-sm figures" inputMode="decimal" required placeholder="5.95" />
        </label>
        {save.problem ? (
          <p role="alert" className="col-span-3 text-error">
            {save.problem}
          </p>
        ) : null}
        <button type="submit" className="btn btn-sm btn-primary col-span-3 justify-self-start" disabled={save.busy}>
          Write it down
        </button>
      </form>
    </Dialog>
  );
}
