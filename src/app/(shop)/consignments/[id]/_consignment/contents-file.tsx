'use client';

import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import type { Shipment } from './view';

/** Box contents out of a CSV: stock number, box, units. */
export function ContentsFile({ shipment, consignmentId }: { shipment: Shipment; consignmentId: number }) {
  const { id, version } = shipment;
  const read = useCommand(
    async (file: File) => {
      const body = { baseVersion: version, text: await file.text() };
      const { boxes } = await api('POST /shipments/{id}/contents', { params: { id }, body });
      return boxes === 1 ? 'One box was read' : `${boxes} boxes were read`;
    },
    { touches: [['consignment', consignmentId]] },
  );
  return (
    <>
      <label className="btn btn-ghost btn-sm cursor-pointer focus-within:outline-2">
        From a CSV
        <input
          type="file"
          accept=".csv,text/csv"
          className="sr-only"
          disabled={read.busy}
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = '';
            if (file) void read.run(file);
          }}
        />
      </label>
      <span className="quiet text-[12px]">with the heads stock number, box, units</span>
      {read.problem ? (
        <p role="alert" className="w-full text-error">
          {read.problem}
        </p>
      ) : null}
    </>
  );
}
