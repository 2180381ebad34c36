'use client';

import { useQuery } from '@tanstack/react-query';
import { memo, useState } from 'react';
import { noteOf, withSwitched } from '@/core/batch/note';
import { nextPlace } from '@/core/batch/place';
import type { IntakeSettings } from '@/core/batch/settings';
import { conditionGrades, conditionLabel } from '@/core/item/condition';
import { homeCurrency } from '@/core/measure/money';
import { AmountField } from '@/ui/controls/amount-field';
import { api } from '@/ui/data/api';
import { useSells } from '@/ui/data/me';
import { LabelOf } from './label-of';
import { MeantFor } from './meant-for';
import { Presets } from './presets';
import { PriceRuleField } from './price-rule-field';

type Props = {
  settings: IntakeSettings;
  change: (part: Partial<IntakeSettings>) => void;
  /** The sentences for the present grade, in the order in which they read. */
  snippets: readonly string[];
  /** The hand goes back to the scanner. */
  done: () => void;
};

/** With what the next piece is recorded. */
export const SettingsPanel = memo(function SettingsPanel({ settings, change, snippets, done }: Props) {
  const words = useQuery({
    queryKey: ['words'],
    queryFn: () => api('GET /words'),
    staleTime: 60_000,
  });
  const [isMore, setIsMore] = useState(false);
  const set = (part: Partial<IntakeSettings>) => {
    change(part);
    done();
  };
  const sells = useSells();
  const note = noteOf(snippets, settings.snippets, settings.besides);
  return (
    <form
      className="space-y-2 text-[13px]"
      aria-label="Every piece gets"
      onSubmit={(event) => {
        event.preventDefault();
        done();
      }}
    >
      <Presets settings={settings} take={(next) => set(next)} />
      <div className="grid grid-cols-2 gap-2">
        <label className="col-span-2 block">
          Condition
          <select
            className="select select-sm w-full"
            value={settings.grade ?? ''}
            onChange={(event) => {
              const grade = conditionGrades.find((one) => one.id === event.target.value)?.id ?? null;
              set({ grade, snippets: [] });
            }}
          >
            <option value="">not said</option>
            {conditionGrades.map((one, index) => (
              <option key={one.id} value={one.id}>
                {index + 1} {one.label}
              </option>
            ))}
          </select>
        </label>
        <label className="block">
          Units
          <input
            className="input input-sm figures w-full"
            type="number"
            min={1}
            max={1_000}
            value={settings.quantity}
            onChange={(event) => {
              const quantity = Number(event.target.value);
              if (Number.isInteger(quantity) && quantity >= 1 && quantity <= 1_000) change({ quantity });
            }}
          />
        </label>
        {sells ? (
          <AmountField label={`Cost of one, ${homeCurrency}`} amount={settings.cost} set={(cost) => change({ cost })} />
        ) : null}
      </div>
      <fieldset>
        <legend className="flex w-full items-baseline">
          {settings.grade ? `Note on ${conditionLabel(settings.grade).toLowerCase()}` : 'Condition note'}
        </legend>
        {snippets.length ? (
          <ul className="flex flex-wrap gap-1">
            {snippets.map((one, index) => (
              <li key={one}>
                <button
                  type="button"
                  aria-pressed={settings.snippets.includes(one)}
                  className={`rounded border px-1.5 py-0.5 text-left text-[12px] ${settings.snippets.includes(one) ? 'border-base-content bg-base-300' : 'border-base-300'}`}
                  onClick={() => set({ snippets: withSwitched(settings.snippets, one) })}
                >
                  <kbd className="mono mr-1">{index + 1}</kbd>
                  {one}
                </button>
              </li>
            ))}
          </ul>
        ) : (
          <p className="quiet text-[12px]">
            {settings.grade ? 'No ready-made sentence for it yet.' : 'Sentences are kept for each condition.'}{' '}
            <a className="link" href="/settings#condition-notes">
              Write them in the settings
            </a>
          </p>
        )}
        <input
          aria-label="The note says besides"
          className="input input-sm mt-1 w-full"
          placeholder="and besides"
          maxLength={500}
          value={settings.besides}
          onChange={(event) => change({ besides: event.target.value })}
        />
        {note ? <p className="quiet mt-1 text-[12px]">Reads: {note}</p> : null}
      </fieldset>
      {sells ? <PriceRuleField rule={settings.price} set={(price) => change({ price })} /> : null}
      <div className="grid grid-cols-[1fr_auto] items-end gap-2">
        <label className="block">
          Place
          <input
            className="input input-sm mono w-full"
            maxLength={60}
            value={settings.place}
            onChange={(event) => change({ place: event.target.value })}
          />
        </label>
        <button
          type="button"
          className="btn btn-sm"
          disabled={settings.place === ''}
          onClick={() => set({ place: nextPlace(settings.place) })}
        >
          {settings.place ? `Next: ${nextPlace(settings.place)}` : 'Next place'}
        </button>
        <label className="col-span-2 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={settings.placeCounts === 'each'}
            onChange={(event) => set({ placeCounts: event.target.checked ? 'each' : 'stays' })}
          />
          Each piece has the next place
        </label>
      </div>
      <LabelOf label={settings.label} set={(label) => set({ label })} />
      <div className="flex flex-wrap gap-x-4 gap-y-1">
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={settings.asksGrade}
            onChange={(event) => set({ asksGrade: event.target.checked })}
          />
          Ask for the condition
        </label>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={settings.asksPrice}
            onChange={(event) => set({ asksPrice: event.target.checked })}
          />
          Ask for the price
        </label>
      </div>
      <button
        type="button"
        className="btn btn-ghost btn-xs"
        aria-expanded={isMore}
        onClick={() => setIsMore((now) => !now)}
      >
        {isMore ? 'Less' : 'More: category, accounts, what is left lying'}
      </button>
      {isMore ? (
        <div className="space-y-2">
          <label className="block">
            Category
            <input
              className="input input-sm w-full"
              list="intake-categories"
              maxLength={120}
              placeholder="as the catalogue says"
              value={settings.category}
              onChange={(event) => change({ category: event.target.value })}
            />
            <datalist id="intake-categories">
              {(words.data?.category ?? []).map((one) => (
                <option key={one} value={one} />
              ))}
            </datalist>
          </label>
          <MeantFor accounts={settings.accounts} set={(accounts) => set({ accounts })} />
          {sells ? (
            <fieldset className="grid grid-cols-3 gap-2">
              <legend>Better left lying</legend>
              <AmountField label="Net below" amount={settings.leastNet} set={(leastNet) => change({ leastNet })} />
              <CountField
                label="Return below, %"
                value={settings.leastReturn}
                most={100_000}
                set={(leastReturn) => change({ leastReturn })}
              />
              <CountField
                label="Stands over, days"
                value={settings.mostDays}
                most={1_000}
                set={(mostDays) => change({ mostDays })}
              />
            </fieldset>
          ) : null}
        </div>
      ) : null}
    </form>
  );
});

function CountField({
  label,
  value,
  most,
  set,
}: {
  label: string;
  value: number | null;
  most: number;
  set: (value: number | null) => void;
}) {
  return (
    <label className="block text-[12px]">
      {label}
      <input
        className="input input-sm figures w-full"
        type="number"
        min={1}
        max={most}
        value={value ?? ''}
        onChange={(event) => {
          const next = event.target.value === '' ? null : Number(event.target.value);
          if (next === null || (Number.isInteger(next) && next >= 1 && next <= most)) set(next);
        }}
      />
    </label>
  );
}
