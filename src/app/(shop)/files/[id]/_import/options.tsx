'use client';

import type { ImportView } from '@/services/importing/find-imports';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

/** What numbers of units and empty cells mean, and whether unknown rows become items. */
export function Options({ file }: { file: ImportView }) {
  const { options } = file;
  const disabled = file.state === 'applying' || file.state === 'applied';
  const say = useCommand(
    async (part: Partial<ImportView['options']>) => {
      await api('PATCH /imports/{id}', { params: { id: file.id }, body: { options: part } });
      return undefined;
    },
    { touches: [['imports']], tells: true },
  );
  const hasUnits = file.columns.some((one) => one.column === 'quantity');
  return (
    <fieldset className="mt-3 space-y-1.5" disabled={disabled || say.busy}>
      <legend className="mb-1 font-semibold">What it means</legend>
      {hasUnits ? (
        <div className="flex flex-wrap gap-x-4">
          <label className="flex items-center gap-1.5">
            <input
              type="radio"
              name="units"
              className="radio radio-xs"
              checked={options.units === 'set'}
              onChange={() => void say.run({ units: 'set' })}
            />
            Stock is set to the number
          </label>
          <label className="flex items-center gap-1.5">
            <input
              type="radio"
              name="units"
              className="radio radio-xs"
              checked={options.units === 'add'}
              onChange={() => void say.run({ units: 'add' })}
            />
            So many are added to the stock
          </label>
        </div>
      ) : null}
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={options.empty === 'clear'}
          onChange={(event) => void say.run({ empty: event.target.checked ? 'clear' : 'keep' })}
        />
        An empty cell empties the field
        <span className="quiet text-[12px]">{file.exportId ? '– also where nothing was written out' : ''}</span>
      </label>
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={options.createNew}
          onChange={(event) => void say.run({ createNew: event.target.checked })}
        />
        Rows that are of no item become new items
      </label>
    </fieldset>
  );
}
