'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import { addressOf } from '@/core/filter/address';
import type { BatchView } from '@/services/intake/find-batch';
import { AsFile } from '@/ui/controls/as-file';
import { Link } from '@/ui/controls/link';
import { PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useSells } from '@/ui/data/me';
import { filterSelection, withSelection } from '@/ui/data/selection';
import { useCommand } from '@/ui/data/use-command';
import { isSilent, setSilent } from '@/ui/scan/sounds';
import { NewConsignment } from '../../../consignments/_consignments/new-consignment';
import { stateWords } from '../../_batches/state-words';
import { Details } from './details';

const filterOf = (code: string) => addressOf({ field: 'batch', op: 'is', value: code });

/** The batch's name and state, and where its pieces go from here. */
export function BatchHead({ batch }: { batch: BatchView }) {
  const router = useRouter();
  const [isOpen, setIsOpen] = useState(false);
  const [sendsIn, setSendsIn] = useState(false);
  const [silent, setIsSilent] = useState(false);
  useEffect(() => setIsSilent(isSilent()), []);
  const turn = useCommand(
    async (state: BatchView['state']) => {
      await api('PATCH /batches/{id}', { params: { id: batch.id }, body: { baseVersion: batch.version, state } });
      return undefined;
    },
    { touches: [['batch', batch.id], ['batches']], tells: true },
  );
  const takeBack = useCommand(
    async () => {
      const done = await api('POST /runs/{id}/undo', { params: { id: batch.runId }, body: {} });
      return done.finished ? `${done.items} items are as they were` : 'It is being taken back';
    },
    { tells: true },
  );
  const sells = useSells();
  const filter = filterOf(batch.code);
  return (
    <PageHead title={batch.name}>
      <span className="mono quiet">{batch.code}</span>
      <label>
        <span className="sr-only">State</span>
        <select
          className="select select-sm w-28"
          value={batch.state}
          onChange={(event) => void turn.run(event.target.value as BatchView['state'])} // one of the options below
        >
          {Object.entries(stateWords).map(([state, words]) => (
            <option key={state} value={state}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <button type="button" className="btn btn-sm" onClick={() => setIsOpen(true)}>
        {sells ? 'Details and cost' : 'Details'}
      </button>
      <Link className="btn btn-sm" href={`/?${new URLSearchParams({ ...filter, sort: 'created', dir: 'asc' })}`}>
        Review as a table
      </Link>
      <Link className="btn btn-sm" href={`/labels?batch=${batch.id}`}>
        Labels
      </Link>
      {sells ? (
        <>
          <button
            type="button"
            className="btn btn-sm"
            disabled={batch.totals.pieces === 0}
            onClick={() => router.push(withSelection('/publish', filterSelection(filter, [])))}
          >
            Publish …
          </button>
          <button
            type="button"
            className="btn btn-sm"
            disabled={batch.totals.pieces === 0}
            onClick={() => setSendsIn(true)}
          >
            Send in …
          </button>
        </>
      ) : null}
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
        Sounds
      </label>
      {batch.isTakenBack ? (
        <span className="text-warning">Taken back</span>
      ) : !sells ? null : (
        <button
          type="button"
          className="btn btn-sm btn-ghost"
          disabled={takeBack.busy || batch.totals.pieces === 0}
          onClick={() => {
            const { pieces } = batch.totals;
            const words = `Take all ${pieces} pieces of ${batch.name} back? Items that were made go from the inventory, added units are taken away again.`;
            if (window.confirm(words)) void takeBack.run();
          }}
        >
          Take all back
        </button>
      )}
      <AsFile of="GET /batches/{id}/lines/file" what="The scans of this batch" params={{ id: batch.id }} />
      {sendsIn ? <NewConsignment batch={batch.id} close={() => setSendsIn(false)} /> : null}
      {isOpen ? <Details batch={batch} close={() => setIsOpen(false)} /> : null}
    </PageHead>
  );
}
