'use client';

import { useQuery } from '@tanstack/react-query';
import { useMemo, useRef, useState } from 'react';
import type { IntakeSettings } from '@/core/batch/settings';
import type { Answer } from '@/http/interface';
import { RemovedList } from '@/ui/controls/removed-list';
import { api } from '@/ui/data/api';
import { bringBack } from '@/ui/data/bring-back';
import { useCommand } from '@/ui/data/use-command';
import { usePageActions } from '@/ui/frame/actions';

const key = ['intake-presets'];
type Preset = Answer<'GET /intake-presets'>['presets'][number];
const none: Preset[] = [];
export const usePresets = () =>
  useQuery({ queryKey: key, queryFn: () => api('GET /intake-presets'), staleTime: 10_000 }).data?.presets ?? none;

/** Settings under names, chosen by a click or by Alt, Shift and their number. */
export function Presets({ settings, take }: { settings: IntakeSettings; take: (settings: IntakeSettings) => void }) {
  const presets = usePresets();
  const latest = useRef(take);
  latest.current = take;
  const [isNaming, setIsNaming] = useState(false);
  const chosen = presets.find((one) => JSON.stringify(one.settings) === JSON.stringify(settings));
  const keep = useCommand(
    async (name: string) => {
      const known = presets.find((one) => one.name.toLowerCase() === name.toLowerCase());
      await api('PUT /intake-presets', { body: { name, settings, baseVersion: known?.version } });
      setIsNaming(false);
      return `Kept as ${name}`;
    },
    { touches: [key] },
  );
  const forget = useCommand(
    async (one: Preset) => {
      await api('DELETE /intake-presets/{id}', { params: { id: one.id } });
      return { text: `${one.name} is forgotten`, back: () => bringBack('preset', one.id) };
    },
    { touches: [key, ['removed']], tells: true },
  );
  const actions = useMemo(
    () =>
      presets.slice(0, 9).map((one, index) => ({
        label: one.name,
        hint: 'Every piece gets these settings',
        keys: `Alt Shift ${index + 1}`,
        run: () => latest.current(one.settings),
      })),
    [presets],
  );
  usePageActions(actions);
  return (
    <div>
      <div className="flex items-end gap-2">
        <label className="min-w-0 flex-1">
          Settings
          <select
            className="select select-sm w-full truncate pr-8"
            value={chosen?.id ?? ''}
            onChange={(event) => {
              const next = presets.find((one) => one.id === Number(event.target.value));
              if (next) take(next.settings);
            }}
          >
            <option value="">{presets.length ? 'changed, or none kept' : 'none kept yet'}</option>
            {presets.map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
          </select>
        </label>
        {chosen ? (
          <button type="button" className="btn btn-sm btn-ghost" onClick={() => void forget.run(chosen)}>
            Forget
          </button>
        ) : (
          <button type="button" className="btn btn-sm" onClick={() => setIsNaming((now) => !now)}>
            Keep as …
          </button>
        )}
      </div>
      {isNaming ? (
        <div className="mt-1 flex gap-2">
          <input
            // biome-ignore lint/a11y/noAutofocus: opened by the person who is going to write in it
            autoFocus
            aria-label="Name of the settings"
            className="input input-sm flex-1"
            maxLength={60}
            onKeyDown={(event) => {
              if (event.key === 'Escape') setIsNaming(false);
              if (event.key !== 'Enter') return;
              event.preventDefault();
              const name = event.currentTarget.value.trim();
              if (name) void keep.run(name);
            }}
          />
        </div>
      ) : null}
      <RemovedList kind="preset" />
      {keep.problem ? (
        <p role="alert" className="text-error">
          {keep.problem}
        </p>
      ) : null}
    </div>
  );
}
