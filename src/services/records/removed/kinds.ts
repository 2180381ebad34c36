import {
  badge,
  box,
  columnSet,
  intakePreset,
  type removedKinds,
  routine,
  savedSearch,
  template,
} from '../../../db/schema';

export type RemovedKind = (typeof removedKinds)[number];

type Kept = {
  /** Each has a number and a name of its own; what else there is differs. */
  table: typeof savedSearch;
  /** What one of them is called. */
  called: string;
};
const kept = (table: { id: unknown; name: unknown }, called: string): Kept => ({
  table: table as Kept['table'],
  called,
});

/** What can be removed and had back: where each kind is kept. */
export const keptKinds: Record<RemovedKind, Kept> = {
  template: kept(template, 'template'),
  badge: kept(badge, 'badge'),
  box: kept(box, 'box'),
  routine: kept(routine, 'routine'),
  search: kept(savedSearch, 'search'),
  preset: kept(intakePreset, 'set of settings'),
  columns: kept(columnSet, 'set of columns'),
};
