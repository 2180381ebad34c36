import { type ItemFilter, readFilter } from '@/core/filter/address';
import type { Filter } from '@/core/filter/filter';
import type { Standing } from '@/core/item/standing';
import type { Selection } from '@/services/records/items/selection';

const storageKey = 'netting.selections';
/** So many are kept, so that one can go back to the pages of the last ones. */
const mostKept = 20;

/** So many chosen one by one fit into an address. */
const mostInAddress = 300;

/** The name of a selection among those that are kept: the same selection has the same (FNV-1a, 32 bits, and its length). */
function nameOf(text: string): string {
  let hash = 0x811c9dc5;
  for (let at = 0; at < text.length; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  return `${(hash >>> 0).toString(36)}-${text.length.toString(36)}`;
}

type Kept = [name: string, selection: Selection][];

function readKept(): Kept {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(storageKey) ?? '[]');
    return Array.isArray(kept) ? (kept as Kept) : []; // written below; checked again by the server
  } catch {
    return [];
  }
}

/** Keeps a selection for the page at its address: the last ones stay, so that going back leads to what it led to before. */
export function keepSelection(selection: Selection): void {
  const name = nameOf(JSON.stringify(selection));
  const kept: Kept = [[name, selection], ...readKept().filter(([other]) => other !== name)];
  // The browser keeps only so much: the oldest goes first.
  for (let count = Math.min(mostKept, kept.length); count > 0; count--)
    try {
      localStorage.setItem(storageKey, JSON.stringify(kept.slice(0, count)));
      return;
    } catch {}
}

/** The address of a page that works on a selection: it stands in it where it is short enough, else its name among those that are kept. */
export const addressOfSelection = (path: string, selection: Selection, more: Record<string, string> = {}): string =>
  `${path}?${new URLSearchParams({
    ...more,
    ...(isShort(selection) ? { ids: selection.ids.join(',') } : { selection: nameOf(JSON.stringify(selection)) }),
  })}`;

const isShort = (selection: Selection): selection is Selection & { kind: 'items' } =>
  selection.kind === 'items' && selection.narrowed === undefined && selection.ids.length <= mostInAddress;

/** The same for who goes there now: what does not stand in the address is kept. */
export function withSelection(path: string, selection: Selection, more: Record<string, string> = {}): string {
  if (!isShort(selection)) keepSelection(selection);
  return addressOfSelection(path, selection, more);
}

export function readSelection(params: URLSearchParams): Selection | null {
  const ids = (params.get('ids') ?? '')
    .split(',')
    .map(Number)
    .filter((id) => Number.isInteger(id) && id > 0);
  if (ids.length) return { kind: 'items', ids };
  const name = params.get('selection');
  return name === null ? null : (readKept().find(([other]) => other === name)?.[1] ?? null);
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
