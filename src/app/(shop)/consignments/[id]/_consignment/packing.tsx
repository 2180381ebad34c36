'use client';

import dynamic from 'next/dynamic';
import { useMemo, useRef } from 'react';
import { commandCode } from '@/core/batch/command';
import { usePageActions } from '@/ui/frame/actions';
import { ScanField, type ScanFieldHandle } from '@/ui/scan/scan-field';
import { SaidBox } from './said-box';
import { ShipmentCard } from './shipment-card';
import { usePacking } from './use-packing';
import type { View } from './view';

const Camera = dynamic(() => import('@/ui/scan/camera').then((one) => one.Camera), {
  ssr: false,
  loading: () => <p className="quiet min-h-8">Camera …</p>,
});

/** Packed while scanning: each piece is told its box, large and aloud; beside it the shipments with their boxes. */
export function Packing({ consignment }: { consignment: View }) {
  const field = useRef<ScanFieldHandle>(null);
  const { scan, last, waiting, isAway } = usePacking(consignment.id);
  const latest = useRef(scan);
  latest.current = scan;
  usePageActions(
    useMemo(
      () => [
        {
          label: 'Take the last unit out again',
          hint: 'Also Ctrl Z',
          keys: 'Alt Z',
          run: () => latest.current(commandCode({ do: 'undo' })),
        },
        {
          label: 'Next box',
          hint: 'The box in the hand is full',
          keys: 'Alt B',
          run: () => latest.current(commandCode({ do: 'box' })),
        },
      ],
      [],
    ),
  );
  return (
    <div className="grid min-h-0 flex-1 grid-cols-[24rem_minmax(0,1fr)] max-lg:grid-cols-1">
      <div className="flex min-h-0 flex-col gap-3 border-r border-base-300 p-3 lg:overflow-y-auto">
        <ScanField
          ref={field}
          label="Scan a piece, or the label of a box"
          placeholder="Scan a piece, or a box"
          describedBy="packed-said"
          submit={scan}
          undo={() => scan(commandCode({ do: 'undo' }))}
        />
        <SaidBox last={last} waiting={waiting} isAway={isAway} />
        <div className="flex gap-2">
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => {
              scan(commandCode({ do: 'undo' }));
              field.current?.focus();
            }}
          >
            One back
          </button>
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => {
              scan(commandCode({ do: 'box' }));
              field.current?.focus();
            }}
          >
            Next box
          </button>
        </div>
        <Camera scanned={scan} />
        <section aria-label="Packed last">
          <h2 className="mb-1 font-semibold">Packed last</h2>
          {consignment.packed.length === 0 ? <p className="quiet">Nothing yet.</p> : null}
          <ol className="text-[12px]">
            {consignment.packed.map((one) => (
              <li key={`${one.at}${one.sku}${one.isUndone}`} className={one.isUndone ? 'quiet line-through' : ''}>
                <span className="mono">{one.sku}</span> → {one.warehouse} {one.box}{' '}
                <span className="quiet">{one.byName}</span>
              </li>
            ))}
          </ol>
        </section>
      </div>
      <div className="min-h-0 space-y-4 p-3 lg:overflow-y-auto">
        {consignment.shipments.map((one) => (
          <ShipmentCard key={one.id} shipment={one} consignment={consignment} />
        ))}
      </div>
    </div>
  );
}
