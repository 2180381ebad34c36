'use client';

import { useState } from 'react';
import { AmountField } from '@/ui/controls/amount-field';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';
import type { View } from './view';

/** Who labels and at what cost, how the units are prepared, when a box is full, what is sold from there. */
export function How({ consignment }: { consignment: View }) {
  const { id, version, labels, labelSeconds, hourCost, prep, prepCost, boxUnits, sellsThere } = consignment;
  const [who, setWho] = useState(labels);
  const [hour, setHour] = useState<number | null>(hourCost);
  const [each, setEach] = useState<number | null>(prepCost);
  const save = useCommand(
    async (form: FormData) => {
      await api('PATCH /consignments/{id}', {
        params: { id },
        body: {
          baseVersion: version,
          labels: who,
          labelSeconds: Number(form.get('labelSeconds') ?? labelSeconds),
          hourCost: hour ?? 0,
          prep: String(form.get('prep') ?? ''),
          prepCost: each ?? 0,
          boxUnits: Number(form.get('boxUnits') ?? 0),
          sellsThere: form.get('sellsThere') === 'on',
        },
      });
      return 'Kept';
    },
    { touches: [['consignment', id]] },
  );
  const number = (label: string, name: string, value: number, most: number) => (
    <label className="block text-[12px]">
      {label}
      <input
        type="number"
        name={name}
        min={0}
        max={most}
        defaultValue={value}
        className="input input-sm figures w-full"
      />
    </label>
  );
  return (
    <form aria-label="How it is sent" className="space-y-2" onSubmit={submitted((form) => void save.run(form))}>
      <h2 className="font-semibold">How it is sent</h2>
      <div className="grid grid-cols-2 gap-2">
        <label className="block text-[12px]">
          Who labels the units
          <select
            className="select select-sm w-full"
            value={who}
            onChange={(event) => setWho(event.target.value as typeof who)} // one of the options below
          >
            <option value="self">you do</option>
            <option value="warehouse">the warehouse, for a fee</option>
          </select>
        </label>
        {number('A box is full with so many units (0: any)', 'boxUnits', boxUnits, 10_000)}
        {who === 'self' ? (
          <>
            {number('Seconds a label', 'labelSeconds', labelSeconds, 3_600)}
            <AmountField label="What an hour is worth, EUR" amount={hour} set={setHour} />
          </>
        ) : null}
        <label className="block text-[12px]">
          How each is prepared
          <input
            name="prep"
            maxLength={120}
            defaultValue={prep}
            placeholder="such as: in a bag"
            className="input input-sm w-full"
          />
        </label>
        <AmountField label="That costs a unit, EUR" amount={each} set={setEach} />
      </div>
      <label className="flex items-center gap-2">
        <input type="checkbox" name="sellsThere" className="checkbox checkbox-sm" defaultChecked={sellsThere} />
        What has arrived is sold from there
      </label>
      {save.problem ? (
        <p role="alert" className="text-error">
          {save.problem}
        </p>
      ) : null}
      <button type="submit" className="btn btn-sm" disabled={save.busy}>
        Keep
      </button>
    </form>
  );
}
