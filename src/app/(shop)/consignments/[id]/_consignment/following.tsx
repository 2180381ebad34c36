'use client';

import { Price } from '@/ui/controls/format';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { ClaimForm } from './claim-form';
import type { Shipment } from './view';

const answers: Record<Shipment['claims'][number]['answer'], string> = {
  open: 'is looked into',
  found: 'was found',
  paid: 'is paid for',
  refused: 'is refused',
};

/** What has arrived line by line, what is missing, and what was claimed. */
export function Following({ shipment, consignmentId }: { shipment: Shipment; consignmentId: number }) {
  const { id, state, units, received, missing, lost, claims, tracking, lookedAt } = shipment;
  const touches = [['consignment', consignmentId], ['consignments']];
  const look = useCommand(
    async () => {
      const { state: now } = await api('POST /shipments/{id}/follow', { params: { id }, body: {} });
      return now === 'shipped' ? 'It has not been counted there yet' : undefined;
    },
    { touches, tells: true },
  );
  const isOver = state === 'settled';
  return (
    <div className="space-y-3">
      <p className="flex flex-wrap items-center gap-3">
        <span className="mono text-[12px]">{tracking.join(', ')}</span>
        {isOver ? null : (
          <button type="button" className="btn btn-sm" disabled={look.busy} onClick={() => void look.run()}>
            Look what has arrived
          </button>
        )}
        {lookedAt && !isOver ? (
          <span className="quiet text-[12px]">
            looked <When at={lookedAt} />
          </span>
        ) : null}
      </p>
      {received.length ? (
        <table>
          <thead>
            <tr className="quiet text-[12px]">
              <th scope="col" className="pr-6 text-left font-medium">
                Stock number
              </th>
              <th scope="col" className="px-2 text-right font-medium">
                Sent
              </th>
              <th scope="col" className="px-2 text-right font-medium">
                Arrived
              </th>
              <th scope="col" className="px-2 text-right font-medium">
                Lost
              </th>
              <th scope="col" className="px-2 text-right font-medium">
                Missing
              </th>
            </tr>
          </thead>
          <tbody>
            {units.map(({ sku, quantity }) => {
              const short = missing.find((one) => one.sku === sku)?.missing ?? 0;
              return (
                <tr key={sku} className="border-t border-base-300/50">
                  <th scope="row" className="mono pr-6 text-left text-[12px] font-normal">
                    {sku}
                  </th>
                  <td className="figures px-2 text-right">{quantity}</td>
                  <td className="figures px-2 text-right">{received.find((one) => one.sku === sku)?.received ?? 0}</td>
                  <td className="figures px-2 text-right">{lost[sku] ?? 0}</td>
                  <td className={`figures px-2 text-right ${short ? 'font-semibold text-warning' : ''}`}>{short}</td>
                </tr>
              );
            })}
          </tbody>
        </table>
      ) : null}
      {claims.length ? (
        <ul aria-label="Claims">
          {claims.map((one, index) => (
            <li key={`${one.sku}${index}`}>
              {one.quantity} of <span className="mono">{one.sku}</span> {answers[one.answer]}
              {one.answer === 'paid' ? (
                <>
                  , <Price amount={one.amount} />
                </>
              ) : null}
              <span className="quiet"> – “{one.note}”</span>
            </li>
          ))}
        </ul>
      ) : null}
      {missing.map((one) => (
        <ClaimForm
          key={one.sku}
          shipment={shipment}
          sku={one.sku}
          missing={one.missing}
          consignmentId={consignmentId}
        />
      ))}
    </div>
  );
}
