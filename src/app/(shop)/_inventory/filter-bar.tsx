'use client';

import { useQuery } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { Condition } from '@/core/filter/filter';
import { sayCondition } from '@/core/filter/say';
import { conditionGrades } from '@/core/item/condition';
import { homeCurrency, parseAmount } from '@/core/measure/money';
import { type KnotState, knotLabels, knotStates } from '@/core/sync/state';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { ItemFilter } from '@/services/records/item-filter';
import { ConditionList } from '@/ui/controls/condition-list';
import { api } from '@/ui/data/api';
import { isWriting } from '@/ui/frame/is-writing';
import { chipText, type FilterName, filterNames, readWhere, writeWhere } from './filters';

type Change = Partial<Record<FilterName, string | number | null>>;
type Props = { filter: ItemFilter; accounts: AccountView[]; change: (change: Change) => void };

/** Words to search for, a way to add a filter, and every filter as a chip that can be removed. */
export function FilterBar({ filter, accounts, change }: Props) {
  const [adding, setAdding] = useState(false);
  const search = useRef<HTMLInputElement>(null);
  const [words, setWords] = useState(filter.q ?? '');
  /** What was asked for and has not come back through the address yet: it must not overwrite newer letters. */
  const asked = useRef<string[]>([]);
  useEffect(() => {
    const said = filter.q ?? '';
    const echo = asked.current.indexOf(said);
    if (echo >= 0) asked.current.splice(0, echo + 1);
    else setWords(said);
  }, [filter.q]);
  useEffect(() => {
    const said = filter.q ?? '';
    const newest = asked.current.at(-1) ?? said;
    if (words === newest) return;
    const timer = setTimeout(() => {
      asked.current.push(words);
      change({ q: words || null });
    }, 120);
    return () => clearTimeout(timer);
  }, [words, filter.q, change]);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === '/' && !isWriting(event.target)) {
        event.preventDefault();
        search.current?.focus();
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const accountName = (id: number) => accounts.find((one) => one.id === id)?.name ?? String(id);
  const plain = readWhere(filter.where);
  const where = plain ?? [];
  const chips = filterNames.filter(
    (name) => name !== 'q' && (name !== 'where' || plain === null) && filter[name] !== undefined,
  );
  const custom = useCustomFields();
  return (
    <div className="flex flex-wrap items-center gap-2">
      <input
        ref={search}
        className="input input-sm w-56"
        type="search"
        aria-label="Search the inventory"
        placeholder="Search  /"
        value={words}
        onChange={(event) => setWords(event.target.value)}
      />
      {chips.map((name) => (
        <span key={name} className="flex h-7 items-center gap-1 rounded border border-base-300 bg-base-200 pl-2">
          {chipText(name, filter, accountName)}
          <button
            type="button"
            className="px-1.5"
            aria-label={`Remove filter ${chipText(name, filter, accountName)}`}
            onClick={() => change({ [name]: null })}
          >
            <X size={13} aria-hidden="true" />
          </button>
        </span>
      ))}
      {where.map((one, index) => {
        const text = sayCondition(one, custom ?? [], { currency: homeCurrency });
        return (
          <span key={index} className="flex h-7 items-center gap-1 rounded border border-base-300 bg-base-200 pl-2">
            {text}
            <button
              type="button"
              className="px-1.5"
              aria-label={`Remove filter ${text}`}
              onClick={() => change({ where: writeWhere(where.filter((_, at) => at !== index)) })}
            >
              <X size={13} aria-hidden="true" />
            </button>
          </span>
        );
      })}
      <div className="relative">
        <button type="button" className="btn btn-sm" aria-expanded={adding} onClick={() => setAdding(!adding)}>
          Filter
        </button>
        {adding ? (
          <FilterForm filter={filter} accounts={accounts} change={change} close={() => setAdding(false)} />
        ) : null}
      </div>
    </div>
  );
}

const isComplete = ({ op, value }: Condition) =>
  op === 'empty' || op === 'filled' || (value !== '' && value !== undefined);

const useCustomFields = () =>
  useQuery({ queryKey: ['custom-fields'], queryFn: () => api('GET /custom-fields'), staleTime: 60_000 }).data?.fields;

const minor = (text: FormDataEntryValue | null): number | null => (text ? parseAmount(String(text), 'EUR') : null);
const whole = (text: FormDataEntryValue | null): number | null =>
  text && /^\d+$/.test(String(text)) ? Number(text) : null;
const said = (text: FormDataEntryValue | null): string | null => (text ? String(text) : null);

function FilterForm({ filter, accounts, change, close }: Props & { close: () => void }) {
  const submit = (event: React.FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const form = new FormData(event.currentTarget);
    change({
      account: whole(form.get('account')),
      state: said(form.get('state')) as KnotState | null,
      brand: said(form.get('brand')),
      category: said(form.get('category')),
      condition: said(form.get('condition')),
      location: said(form.get('location')),
      priceMin: minor(form.get('priceMin')),
      priceMax: minor(form.get('priceMax')),
      quantityMin: whole(form.get('quantityMin')),
      quantityMax: whole(form.get('quantityMax')),
      photosMax: whole(form.get('photosMax')),
      // A filter of several parts stays as it is while nothing is added to it here.
      ...(plain === null && where.length === 0 ? {} : { where: writeWhere(where.filter(isComplete)) }),
      own: form.get('ownField') && form.get('ownValue') ? `${form.get('ownField')}:${form.get('ownValue')}` : null,
    });
    close();
  };
  const plain = readWhere(filter.where);
  const [where, setWhere] = useState(() => plain ?? []);
  const own = useCustomFields();
  const [ownKey = '', ...ownWords] = (filter.own ?? '').split(':');
  const amount = (value: number | undefined) => (value === undefined ? '' : (value / 100).toFixed(2));
  const input = (name: string, label: string, value: string | number | undefined) => (
    <label className="flex flex-col gap-1">
      {label}
      <input name={name} className="input input-sm w-full" defaultValue={value} />
    </label>
  );
  return (
    <form
      onSubmit={submit}
      onKeyDown={(event) => event.key === 'Escape' && close()}
      className="absolute left-0 z-20 mt-1 grid max-h-[80vh] w-[34rem] grid-cols-2 overflow-auto gap-3 rounded border border-base-300 bg-base-100 p-3 shadow-lg"
    >
      <label className="flex flex-col gap-1">
        Account
        <select name="account" className="select select-sm" defaultValue={filter.account ?? ''}>
          <option value="">Any</option>
          {accounts.map((account) => (
            <option key={account.id} value={account.id}>
              {account.name}
            </option>
          ))}
        </select>
      </label>
      <label className="flex flex-col gap-1">
        State there
        <select name="state" className="select select-sm" defaultValue={filter.state ?? ''}>
          <option value="">Any</option>
          {knotStates.map((state) => (
            <option key={state} value={state}>
              {knotLabels[state]}
            </option>
          ))}
        </select>
      </label>
      <label className="flex flex-col gap-1">
        Condition
        <select name="condition" className="select select-sm" defaultValue={filter.condition ?? ''}>
          <option value="">Any</option>
          {conditionGrades.map((grade) => (
            <option key={grade.id} value={grade.id}>
              {grade.label}
            </option>
          ))}
        </select>
      </label>
      {input('brand', 'Brand', filter.brand)}
      {input('category', 'Category', filter.category)}
      {input('location', 'Place begins with', filter.location)}
      {input('priceMin', 'Price from', amount(filter.priceMin))}
      {input('priceMax', 'Price to', amount(filter.priceMax))}
      {input('quantityMin', 'Stock from', filter.quantityMin)}
      {input('quantityMax', 'Stock to', filter.quantityMax)}
      {input('photosMax', 'Photos at most', filter.photosMax)}
      {own?.length ? (
        <>
          <label className="flex flex-col gap-1">
            Field of your own
            <select name="ownField" className="select select-sm" defaultValue={ownKey}>
              <option value="">Any</option>
              {own.map((field) => (
                <option key={field.key} value={field.key}>
                  {field.label}
                </option>
              ))}
            </select>
          </label>
          {input('ownValue', 'is', ownWords.join(':'))}
        </>
      ) : null}
      <div className="col-span-2 border-t border-base-300 pt-2">
        <ConditionList legend="And any other field" conditions={where} set={setWhere} />
      </div>
      <div className="col-span-2 flex justify-end gap-2">
        <button type="button" className="btn btn-sm" onClick={close}>
          Cancel
        </button>
        <button type="submit" className="btn btn-primary btn-sm">
          Show
        </button>
      </div>
    </form>
  );
}
