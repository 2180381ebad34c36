import type { LotView } from '@/services/kits/find-kit';

export type ColumnId =
  | 'name'
  | 'finish'
  | 'sort'
  | 'condition'
  | 'pieces'
  | 'grams'
  | 'price'
  | 'value'
  | 'cost'
  | 'place'
  | 'comment'
  | 'tiers'
  | 'state';

export type LotColumn = { id: ColumnId; head: string; width: string; isRight?: true; isAlways?: true };

/** The columns of the lots' table, in their order. */
export const lotColumns: LotColumn[] = [
  { id: 'name', head: 'Lot', width: 'minmax(210px,2fr)', isAlways: true },
  { id: 'finish', head: 'Finish', width: '76px' },
  { id: 'sort', head: 'Kind', width: '110px' },
  { id: 'condition', head: 'Condition', width: '92px' },
  { id: 'pieces', head: 'Pieces', width: '72px', isRight: true },
  { id: 'grams', head: 'Weight', width: '76px', isRight: true },
  { id: 'price', head: 'Price', width: '104px', isRight: true, isAlways: true },
  { id: 'value', head: 'Value', width: '84px', isRight: true },
  { id: 'cost', head: 'Cost share', width: '84px', isRight: true },
  { id: 'place', head: 'Place', width: '92px' },
  { id: 'comment', head: 'Comment for buyers', width: 'minmax(130px,1fr)' },
  { id: 'tiers', head: 'Tiers', width: '150px' },
  { id: 'state', head: 'State', width: '136px', isAlways: true },
];
export const usualColumns: ColumnId[] = ['name', 'finish', 'pieces', 'price', 'value', 'place', 'comment', 'state'];

export const gridOf = (columns: readonly LotColumn[]): string => ['28px', ...columns.map((one) => one.width)].join(' ');

/** What lots are put in order and in groups by. */
export const orders = {
  came: 'as they came',
  name: 'name',
  finish: 'finish',
  sort: 'kind',
  place: 'place',
  value: 'value',
  price: 'price',
  pieces: 'pieces',
} as const;
export type Order = keyof typeof orders;
export const groupings = { none: 'no groups', finish: 'finish', sort: 'kind', place: 'place', state: 'state' } as const;
export type Grouping = keyof typeof groupings;

export const stateWords: Record<LotView['state'], string> = {
  open: 'open',
  later: 'kept for later',
  out: 'taken out',
  done: 'in stock',
};
