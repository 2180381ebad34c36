'use client';

import { useState } from 'react';
import { conditionGrades } from '@/core/item/condition';
import { useCommand } from '@/ui/data/use-command';
import type { AccountPart } from './account-part';
import { useSeen } from './use-seen';

type Map = Record<string, string>;
/** The field in which a marketplace with stock by place says where it is. */
const placeField = 'stockPlace';

/** What your conditions and your places are called on this account, where it is otherwise than foreseen. */
export function OwnWords({ account, changed, again }: AccountPart) {
  const places = account.extras.find((extra) => extra.id === placeField)?.values ?? null;
  const [grades, setGrades] = useState<Map>(account.maps.condition ?? {});
  const [rows, setRows] = useState<[string, string][]>(Object.entries(account.maps[`extra.${placeField}`] ?? {}));
  const keep = useSeen(account, ['maps']);
  const save = useCommand(
    async () => {
      const kept = Object.fromEntries(rows.filter(([, theirs]) => theirs !== ''));
      const before = await keep({
        maps: { ...account.maps, condition: grades, ...(places ? { [`extra.${placeField}`]: kept } : {}) },
      });
      changed();
      return {
        text: `${account.name} gets your words so from now on`,
        back: async () => {
          await keep(before);
          await again();
        },
      };
    },
    { tells: true },
  );
  if (account.conditions.length === 0 && !places) return null;
  const labelOf = (id: string | null | undefined) =>
    account.conditions.find((one) => one.id === id)?.label ?? 'nothing of the kind';
  return (
    <section aria-labelledby="own-words" className="border-t border-base-300 p-4">
      <h2 id="own-words" className="mb-2 font-semibold">
        Your words there
      </h2>
      {account.conditions.length ? (
        <div className="grid grid-cols-[9rem_1fr] items-center gap-x-3 gap-y-1">
          {conditionGrades.map(({ id, label }) => (
            <label key={id} className="contents">
              <span>{label}</span>
              <select
                aria-label={`${label} is`}
                className="select select-sm w-full"
                value={grades[id] ?? ''}
                onChange={(event) => {
                  const { [id]: _old, ...rest } = grades;
                  setGrades(event.target.value ? { ...rest, [id]: event.target.value } : rest);
                }}
              >
                <option value="">As foreseen: {labelOf(account.conditionMap[id])}</option>
                {account.conditions.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.label}
                  </option>
                ))}
              </select>
            </label>
          ))}
        </div>
      ) : null}
      {places ? (
        <div className="mt-3">
          <h3 className="mb-1 font-medium">Stock per place</h3>
          <p className="quiet mb-1 text-[12px]">
            What is kept at a place of yours that begins so is stock of theirs; the other place’s stock is never
            touched.
          </p>
          {rows.map(([begins, theirs], at) => (
            <div key={at} className="mb-1 flex items-center gap-2">
              <input
                aria-label={`Your place ${at + 1} begins with`}
                className="input input-sm mono w-28"
                placeholder="any"
                value={begins}
                onChange={(event) =>
                  setRows(rows.map((row, index) => (index === at ? [event.target.value, theirs] : row)))
                }
              />
              is
              <select
                aria-label={`Your place ${at + 1} is`}
                className="select select-sm w-40"
                value={theirs}
                onChange={(event) =>
                  setRows(rows.map((row, index) => (index === at ? [begins, event.target.value] : row)))
                }
              >
                <option value="">nothing</option>
                {places.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.label}
                  </option>
                ))}
              </select>
            </div>
          ))}
          <button type="button" className="btn btn-xs" onClick={() => setRows([...rows, ['', '']])}>
            Add a place
          </button>
        </div>
      ) : null}
      <button type="button" className="btn btn-sm mt-3 block" disabled={save.busy} onClick={() => void save.run()}>
        Keep these words
      </button>
    </section>
  );
}
