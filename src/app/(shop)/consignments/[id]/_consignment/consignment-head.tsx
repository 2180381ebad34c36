'use client';

import { useEffect, useState } from 'react';
import { PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { isSilent, setSilent } from '@/ui/scan/sounds';
import { consignmentWords } from '../../_consignments/state-words';
import type { View } from './view';

/** Its name, where it goes, and how far it is. */
export function ConsignmentHead({ consignment }: { consignment: View }) {
  const { id, name, accountName, state, shipments, units } = consignment;
  const [silent, setIsSilent] = useState(false);
  useEffect(() => setIsSilent(isSilent()), []);
  const off = useCommand(
    async () => {
      await api('POST /consignments/{id}/off', { params: { id }, body: {} });
      return undefined;
    },
    { touches: [['consignment', id], ['consignments']], tells: true },
  );
  const alive = shipments.filter((one) => one.state !== 'off');
  const planned = alive.length ? alive.flatMap((one) => one.units) : units;
  const count = planned.reduce((sum, one) => sum + one.quantity, 0);
  const packed = alive.flatMap((one) => one.units).reduce((sum, one) => sum + one.packed, 0);
  return (
    <PageHead title={name}>
      <span className="quiet">to {accountName}</span>
      <span className="font-medium">{consignmentWords[state]}</span>
      <span className="figures">
        {state === 'packing' ? `${packed} of ${count} units packed` : `${count} ${count === 1 ? 'unit' : 'units'}`}
      </span>
      {state === 'packing' ? (
        <label className="ml-auto flex items-center gap-2 text-[12px]">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={!silent}
            onChange={(event) => {
              setSilent(!event.target.checked);
              setIsSilent(!event.target.checked);
            }}
          />
          Sounds and voice
        </label>
      ) : null}
      {state === 'choosing' ? (
        <button
          type="button"
          className="btn btn-sm btn-ghost ml-auto"
          disabled={off.busy}
          onClick={() => {
            if (window.confirm(`Call ${name} off? Nothing of it was set aside yet.`)) void off.run();
          }}
        >
          Call it off
        </button>
      ) : null}
    </PageHead>
  );
}
