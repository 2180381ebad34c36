'use client';

import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';
import { type Shipment, unitsText } from './view';

type Props = { shipment: Shipment; sku: string; missing: number; consignmentId: number };

/** Claims what is missing of a number, with a note, or gives it up. */
export function ClaimForm({ shipment, sku, missing, consignmentId }: Props) {
  const { id, claims, boxes, tracking } = shipment;
  const touches = [['consignment', consignmentId], ['consignments']];
  const asked = claims
    .filter((one) => one.sku === sku && one.answer === 'open')
    .reduce((sum, one) => sum + one.quantity, 0);
  const open = missing - asked;
  const claim = useCommand(
    async (form: FormData) => {
      await api('POST /shipments/{id}/claims', {
        params: { id },
        body: { sku, quantity: Number(form.get('quantity')), note: String(form.get('note') ?? '') },
      });
      return 'They look into it';
    },
    { touches },
  );
  const giveUp = useCommand(
    async () => {
      await api('POST /shipments/{id}/lost', { params: { id }, body: { sku } });
      return undefined;
    },
    { touches },
  );
  const holding = boxes.filter((box) => (box.contents[sku] ?? 0) > 0);
  const note = holding
    .map((box) => {
      const number = tracking[boxes.indexOf(box)];
      return `${unitsText(box.contents[sku] ?? 0)} were packed in box ${box.number}${number ? ` (${number})` : ''}`;
    })
    .join('; ');
  return (
    <div className="rounded border border-warning p-3">
      <p className="mb-2 font-medium">
        {unitsText(missing)} of <span className="mono">{sku}</span> did not arrive
        {asked ? `, ${asked === missing ? 'claimed' : `${asked} claimed`}` : ''}
      </p>
      {open > 0 ? (
        <form className="flex flex-wrap items-end gap-2" onSubmit={submitted((form) => void claim.run(form))}>
          <label className="text-[12px]">
            Units
            <input
              name="quantity"
              type="number"
              min={1}
              max={open}
              defaultValue={open}
              className="input input-sm figures w-20"
            />
          </label>
          <label className="min-w-60 flex-1 text-[12px]">
            Note
            <input name="note" required maxLength={1_000} defaultValue={note} className="input input-sm w-full" />
          </label>
          <button type="submit" className="btn btn-primary btn-sm" disabled={claim.busy}>
            Claim them
          </button>
        </form>
      ) : null}
      <button
        type="button"
        className="btn btn-ghost btn-sm mt-1"
        disabled={giveUp.busy}
        onClick={() => {
          if (window.confirm(`Give up ${unitsText(missing)} of ${sku}? They leave the stock as lost.`))
            void giveUp.run();
        }}
      >
        Give them up for lost
      </button>
      {claim.problem || giveUp.problem ? (
        <p role="alert" className="text-error">
          {claim.problem || giveUp.problem}
        </p>
      ) : null}
    </div>
  );
}
