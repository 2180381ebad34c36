import { type ItemFilter, readFilter } from '@/core/filter/address';
import type { Filter } from '@/core/filter/filter';
import type { Standing } from '@/core/item/standing';
import type { Selection } from '@/services/records/items/selection';

const storageKey = 'netting.selection';

/** The address of a page that works on a selection: in the link where it is short enough, else kept by the browser. */
export function withSelection(path: string, selection: Selection, more: Record<string, string> = {}): string {
  const params = new URLSearchParams(more);
  if (selection.kind === 'items' && selection.ids.length <= 300) params.set('ids', selection.ids.join(','));
  else {
    sessionStorage.setItem(storageKey, JSON.stringify(selection));
    params.set('selection', 'kept');
  }
  return `${path}?${params}`;
}

export function readSelection(params: URLSearchParams): Selection | null {
  const ids = (params.get('ids') ?? '')
    .split(',')
    .map(Number)
    .filter((id) => Number.isInteger(id) && id > 0);
  if (ids.length) return { kind: 'items', ids };
  if (params.get('selection') !== 'kept') return null;
  try {
    return JSON.parse(sessionStorage.getItem(storageKey) ?? 'null') as Selection | null; // written by the function above; checked again by the server
  } catch {
    return null;
  }
}

export const filterSelection = (filter: ItemFilter, except: number[]): Selection => ({
  kind: 'filter',
  filter,
  except,
});

/** A selection without some of its items; null when none would be left. */
export function withoutItems(selection: Selection, ids: ReadonlySet<number>): Selection | null {
  if (ids.size === 0) return selection;
  if (selection.kind === 'filter') return { ...selection, except: [...new Set([...selection.except, ...ids])] };
  const left = selection.ids.filter((id) => !ids.has(id));
  return left.length ? { ...selection, ids: left } : null;
}

/** A selection of which only a part is meant from now on. */
export const narrowedTo = (selection: Selection, part: Filter): Selection => ({
  ...selection,
  narrowed: { all: [...(selection.narrowed && 'all' in selection.narrowed ? selection.narrowed.all : []), part] },
});

/** What finds the chosen items; null where they, or those left out, were chosen one by one. */
export function filterOfSelection(selection: Selection): Filter | null {
  if (selection.kind === 'items' || selection.except.length) return null;
  const { all } = readFilter(selection.filter);
  return { all: [...all, ...(selection.narrowed ? [selection.narrowed] : [])] };
}

/** What the workbench is asked to do with the standing of the chosen items, for its address. */
export const standingSteps = (standing: Standing): string =>
  JSON.stringify([{ field: 'standing', do: { verb: 'set', value: standing } }]);
