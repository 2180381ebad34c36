'use client';

import { Price } from '@/ui/controls/format';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { shipmentWords } from '../../_consignments/state-words';
import { BoxesTable } from './boxes-table';
import { Following } from './following';
import { Papers } from './papers';
import { ShipForm } from './ship-form';
import { type Shipment, unitsText, type View } from './view';

/** What goes to one warehouse: how far it is, its boxes, and what is to be done next. */
export function ShipmentCard({ shipment, consignment }: { shipment: Shipment; consignment: View }) {
  const { id, state, warehouseName, address, isClosed, remoteId, units, costs, shippedAt, carrier } = shipment;
  const touches = [['consignment', consignment.id], ['consignments']];
  const off = useCommand(
    async () => {
      await api('POST /shipments/{id}/off', { params: { id }, body: {} });
      return undefined;
    },
    { touches, tells: true },
  );
  const count = units.reduce((sum, one) => sum + one.quantity, 0);
  const packed = units.reduce((sum, one) => sum + one.packed, 0);
  const isPacked = state === 'open' || state === 'told';
  return (
    <section aria-label={warehouseName} className="rounded border border-base-300">
      <header className="flex flex-wrap items-baseline gap-x-3 gap-y-1 border-b border-base-300 px-3 py-2">
        <h2 className="text-base font-semibold">{warehouseName}</h2>
        <span>{shipmentWords[state]}</span>
        <span className="figures">{isPacked ? `${packed} of ${count} packed` : unitsText(count)}</span>
        <span className="mono quiet text-[12px]">{remoteId}</span>
        <span className="quiet text-[12px]">{address.join(', ')}</span>
        {shippedAt ? (
          <span className="ml-auto">
            {carrier}, <When at={shippedAt} />,{' '}
            <Price amount={costs.placing + costs.labelling + costs.prep + costs.postage} /> for the way
          </span>
        ) : null}
        {isPacked ? (
          <button
            type="button"
            className="btn btn-ghost btn-xs ml-auto"
            disabled={off.busy}
            onClick={() => {
              const words = `Call the shipment to ${warehouseName} off? Its ${unitsText(count)} are for sale here again.`;
              if (window.confirm(words)) void off.run();
            }}
          >
            Call it off
          </button>
        ) : null}
      </header>
      {isClosed && isPacked ? (
        <p role="alert" className="m-3 rounded border border-error px-3 py-2">
          {warehouseName} takes nothing in any more. Call this shipment off, then ask for a new plan for what was in it.
        </p>
      ) : null}
      {state === 'off' ? null : (
        <div className="space-y-3 p-3">
          {isPacked ? <BoxesTable shipment={shipment} consignment={consignment} /> : null}
          {packed > 0 ? <Papers shipment={shipment} /> : null}
          {state === 'told' ? <ShipForm shipment={shipment} consignmentId={consignment.id} /> : null}
          {isPacked ? null : <Following shipment={shipment} consignmentId={consignment.id} />}
        </div>
      )}
    </section>
  );
}
