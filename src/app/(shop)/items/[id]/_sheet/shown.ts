import { brief } from '@/core/field/brief';
import { readAs, showAs } from '@/core/field/kinds';
import type { SheetColumn, SheetField } from '@/services/items/item-sheet';

type Cell = Pick<SheetField, 'kind' | 'value' | 'length'>;
type Shop = Pick<SheetColumn, 'currency'>;

/** A value as a person reads it. */
export const shown = ({ kind, value, length }: Cell, shop: Shop): string =>
  kind.is === 'map' && length !== undefined ? `${length} combinations` : brief(kind, value, shop);

/** A value as it is written in a text field, and copied. */
export const written = ({ kind, value }: Cell, shop: Shop): string => showAs(kind, value, shop);

/** What was typed or pasted for one marketplace, as the kind of value the field holds. */
export const readTyped = ({ kind }: Pick<SheetField, 'kind'>, shop: Shop, typed: string) => readAs(kind, typed, shop);
