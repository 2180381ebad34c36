'use client';

import { useQuery } from '@tanstack/react-query';
import { X } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useEffect, useRef, useState } from 'react';
import { addressParts, type ItemFilter, isCondition } from '@/core/filter/address';
import type { Condition, Filter } from '@/core/filter/filter';
import { filterFieldName, operatorsFor, sayFilter } from '@/core/filter/say';
import { stageLabels } from '@/core/filter/stages';
import { homeCurrency } from '@/core/measure/money';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { SavedSearch } from '@/services/searches/find-searches';
import { api } from '@/ui/data/api';
import { isWriting } from '@/ui/frame/is-writing';
import { useEscape } from '@/ui/frame/use-escape';
import { type FilterName, partsChange } from './filters';
import { type Order, SavedSearches } from './saved-searches';

const ConditionList = dynamic(() => import('@/ui/controls/condition-list').then((module) => module.ConditionList));
const ListingPartEditor = dynamic(() => import('./listing-part').then((module) => module.ListingPartEditor));

type Change = Partial<Record<FilterName, string | number | null>>;
type Props = {
  filter: ItemFilter;
  accounts: AccountView[];
  change: (change: Change) => void;
  order: Order;
  /** Shows a saved search in place of what is shown. */
  open: (search: SavedSearch) => void;
};

/** Words to search for, a way to add a filter or open a saved search, and every filter as a chip that can be removed. */
export function FilterBar({ filter, accounts, change, order, open }: Props) {
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
    // At once: what was asked for before is stopped by it.
    asked.current.push(words);
    change({ q: words || null });
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
  const context = {
    currency: homeCurrency,
    custom: useCustomFields() ?? [],
    accountName: (id: number) => accounts.find((one) => one.id === id)?.name ?? String(id),
  };
  const parts = addressParts(filter);
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
      <div className="relative">
        <button type="button" className="btn btn-sm" aria-expanded={adding} onClick={() => setAdding(!adding)}>
          Filter
        </button>
        {adding ? (
          <FilterForm parts={parts} accounts={accounts} change={change} close={() => setAdding(false)} />
        ) : null}
      </div>
      <SavedSearches filter={filter} order={order} open={open} />
      {filter.stage ? <Chip text={stageLabels[filter.stage]} remove={() => change({ stage: null })} /> : null}
      {parts.map((part, index) => (
        <Chip
          key={JSON.stringify(part)}
          text={sayFilter(part, context)}
          remove={() => change(partsChange(parts.filter((_, at) => at !== index)))}
        />
      ))}
    </div>
  );
}

const isComplete = ({ op, value }: Condition) =>
  op === 'empty' || op === 'filled' || (value !== '' && value !== undefined);

const useCustomFields = () =>
  useQuery({ queryKey: ['custom-fields'], queryFn: () => api('GET /custom-fields'), staleTime: 60_000 }).data?.fields;

function Chip({ text, remove }: { text: string; remove: () => void }) {
  return (
    <span className="flex h-7 max-w-md items-center gap-1 rounded border border-base-300 bg-base-200 pl-2">
      <span className="truncate" title={text}>
        {text}
      </span>
      <button type="button" className="px-1.5" aria-label={`Remove filter ${text}`} onClick={remove}>
        <X size={13} aria-hidden="true" />
      </button>
    </span>
  );
}

const usual = [
  'category',
  'brand',
  'price',
  'quantity',
  'condition',
  'location',
  'photoCount',
  'titleLength',
  'unsoldDays',
];
const isListing = (part: Filter) => 'listing' in part;

type FormProps = Pick<Props, 'accounts' | 'change'> & { parts: Filter[]; close: () => void };

/** Where it is listed, and conditions over any field. Parts that say more than one condition stay as they are. */
function FilterForm({ parts, accounts, change, close }: FormProps) {
  const [there, setThere] = useState(() => parts.find((part) => 'listing' in part)?.listing);
  const [conditions, setConditions] = useState(() => parts.filter(isCondition));
  const rest = parts.filter((part) => part !== parts.find(isListing) && !isCondition(part));
  const custom = useCustomFields();
  useEscape(true, close);
  const submit = (event: React.FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    change(partsChange([...(there ? [{ listing: there }] : []), ...rest, ...conditions.filter(isComplete)]));
    close();
  };
  const add = (field: string) => {
    const [op = 'is'] = operatorsFor(field);
    const ranged = ['price', 'quantity', 'photoCount', 'titleLength', 'unsoldDays'].includes(field);
    setConditions([
      ...conditions,
      { field, op: ranged ? 'between' : field === 'category' || field === 'location' ? 'begins' : op, value: '' },
    ]);
  };
  return (
    <form
      onSubmit={submit}
      className="absolute left-0 z-20 mt-1 grid max-h-[80vh] w-[36rem] grid-cols-2 overflow-auto gap-3 rounded border border-base-300 bg-base-100 p-3 shadow-lg"
    >
      <ListingPartEditor part={there} accounts={accounts} set={setThere} />
      <div className="col-span-2 border-t border-base-300 pt-2">
        <ConditionList legend="Conditions, all of which must hold" conditions={conditions} set={setConditions} />
        <p className="mt-2 flex flex-wrap items-center gap-1" aria-label="Usual conditions" role="group">
          <span className="quiet">Usual:</span>
          {usual.map((field) => (
            <button key={field} type="button" className="btn btn-ghost btn-xs" onClick={() => add(field)}>
              {filterFieldName(field, custom)}
            </button>
          ))}
        </p>
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
