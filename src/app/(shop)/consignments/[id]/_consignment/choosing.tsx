'use client';

import { useState } from 'react';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { ScanField } from '@/ui/scan/scan-field';
import { ChosenUnits } from './chosen-units';
import { How } from './how';
import { Plans } from './plans';
import type { View } from './view';

const howOf = ({ labels, labelSeconds, hourCost, prep, prepCost, boxUnits, sellsThere }: View): string =>
  [labels, labelSeconds, hourCost, prep, prepCost, boxUnits, sellsThere].join('/');

/** What goes with it, how it is labelled, and the plans that were asked for. */
export function Choosing({ consignment }: { consignment: View }) {
  const { id, state } = consignment;
  const [said, setSaid] = useState('');
  const add = useCommand(
    async (code: string) => {
      setSaid(`${code} …`);
      await api('POST /consignments/{id}/units', { params: { id }, body: { code } });
      setSaid(`${code}: one more`);
      return undefined;
    },
    { touches: [['consignment', id]] },
  );
  const isOpen = state === 'choosing';
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(0,30rem)] max-lg:grid-cols-1">
      <div className="flex min-h-0 flex-col gap-3 border-r border-base-300 p-4 lg:overflow-y-auto">
        <h2 className="font-semibold">What goes</h2>
        {isOpen ? (
          <>
            <ScanField
              label="Scan or type what goes: each scan is one unit more"
              placeholder="Scan a piece, or type its stock number"
              describedBy="choose-said"
              submit={(code) => void add.run(code.trim().slice(0, 200))}
              undo={() => undefined}
            />
            <p id="choose-said" role="status" className={`min-h-5 ${add.problem ? 'text-error' : 'quiet'}`}>
              {add.problem || said}
            </p>
          </>
        ) : null}
        <ChosenUnits consignment={consignment} />
      </div>
      <div className="flex min-h-0 flex-col gap-4 p-4 lg:overflow-y-auto">
        {/* What is typed here stays while somebody scans; what somebody else has kept is shown. */}
        {isOpen ? <How key={howOf(consignment)} consignment={consignment} /> : null}
        <Plans consignment={consignment} />
      </div>
    </div>
  );
}
