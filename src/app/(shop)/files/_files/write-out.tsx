'use client';

import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import type { ColumnChoices } from '@/services/exporting/find-columns';
import type { ExportView } from '@/services/exporting/find-exports';
import type { Selection } from '@/services/records/items/selection';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { filterSelection, readSelection } from '@/ui/data/selection';
import { useCommand } from '@/ui/data/use-command';
import { ColumnChooser } from './column-chooser';
import { Exports } from './exports';
import { keepColumns, lastColumns } from './last-columns';

const titles: Record<ExportView['kind'], string> = {
  items: 'Items',
  listings: 'Listings',
  history: 'History',
  sales: 'Sales',
};
const kinds: [ExportView['kind'], string][] = [
  ['items', 'Items and their variations'],
  ['listings', 'Listings'],
  ['history', 'What was changed'],
  ['sales', 'Sales'],
];

/** What can be chosen of a kind; sets of columns are kept of items alone. */
function choicesOf(choices: ColumnChoices, kind: ExportView['kind']): ColumnChoices {
  if (kind === 'items') return choices;
  const columns = choices.others[kind].map((one) => ({ ...one, account: null, isWritable: true }));
  return { ...choices, columns, usual: columns.map((one) => one.id), sets: [] };
}

const everything: Selection = filterSelection({}, []);

/** How many items a selection means, where that is known without asking. */
const said = (selection: Selection): string =>
  selection.kind === 'items'
    ? `${selection.ids.length.toLocaleString('en')} chosen ${selection.ids.length === 1 ? 'item' : 'items'}`
    : Object.keys(selection.filter).length || selection.except.length
      ? 'what was found in the inventory'
      : 'the whole inventory';

/** What is written out, in which columns; and what was written out before. */
export function WriteOut() {
  const params = useSearchParams();
  const [selection] = useState(() => readSelection(new URLSearchParams(params.toString())) ?? everything);
  const choices = useQuery({ queryKey: ['file-columns'], queryFn: () => api('GET /file-columns') });
  const [chosen, setChosen] = useState<Partial<Record<ExportView['kind'], string[]>>>({});
  const [kind, setKind] = useState<ExportView['kind']>('items');
  const ways = choices.data ? choicesOf(choices.data, kind) : null;
  const columns = chosen[kind] ?? (ways && (lastColumns(kind, ways) ?? ways.usual)) ?? [];
  const write = useCommand(
    async () => {
      const begun = await api('POST /exports', {
        body: { kind, selection, columns, title: titles[kind] },
      });
      keepColumns(kind, columns);
      const count = `${begun.items.toLocaleString('en')} ${begun.items === 1 ? 'item' : 'items'}`;
      return begun.finished ? `${count} written out` : `${count} are being written out`;
    },
    { touches: [['exports'], ['tasks']] },
  );
  return (
    <section aria-label="Write out" className="flex min-h-0 flex-col overflow-auto p-4">
      <h2 className="mb-1 font-semibold">Write out</h2>
      <p className="mb-3">
        {said(selection)[0]?.toUpperCase()}
        {said(selection).slice(1)}.{' '}
        {selection === everything ? (
          <span className="quiet">Choose rows in the inventory to write out only those.</span>
        ) : null}
      </p>
      <fieldset className="mb-3 flex flex-wrap gap-x-4">
        <legend className="sr-only">Rows of what</legend>
        {kinds.map(([id, label]) => (
          <label key={id} className="flex items-center gap-1.5">
            <input
              type="radio"
              name="kind"
              className="radio radio-xs"
              checked={kind === id}
              onChange={() => setKind(id)}
            />
            {label}
          </label>
        ))}
      </fieldset>
      {kind !== 'items' ? (
        <p className="quiet mb-2">These are written out to be looked at; only items are read in again.</p>
      ) : null}
      {ways ? (
        <ColumnChooser
          choices={ways}
          chosen={columns}
          change={(next) => setChosen({ ...chosen, [kind]: next })}
          canKeep={kind === 'items'}
          key={kind}
        />
      ) : choices.isError ? (
        <Failed error={choices.error} retry={() => void choices.refetch()} />
      ) : (
        <Loading what="columns" />
      )}
      <p className="mt-3 flex items-center gap-3">
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={write.busy || columns.length === 0}
          onClick={() => void write.run()}
        >
          {write.busy ? 'Writing out …' : 'Write out'}
        </button>
        {write.problem ? (
          <span role="alert" className="text-error">
            {write.problem}
          </span>
        ) : (
          <span className="quiet">
            What is written out is remembered for 90 days: a file of it is compared with it.
          </span>
        )}
      </p>
      <Exports />
    </section>
  );
}
