import type { z } from 'zod';
import { type Json, jsonSchema, sameJson } from '../json';
import type { FieldContext, Kind, Read } from './kind';
import { faultAs, readAs, showAs } from './kinds';

export type Traits = {
  /** Names the single piece, so that no two have the same. */
  identifies?: boolean;
  /** Goes along when an item is copied for the next one; true when left out. */
  copied?: boolean;
  /** Units: kept as the sum of movements, never written as a number. */
  ledger?: boolean;
  /** May be taken over, from another item or from what a marketplace shows; true when left out. */
  takeable?: boolean;
  /** The inventory can be put in its order. */
  sortable?: boolean;
  /** The listing's field that is made of it. */
  sent?: string;
  /** Marketplaces may ask for it as an attribute of this name. */
  asked?: boolean;
  /** Stays with us: no marketplace gets it as such. */
  inside?: boolean;
  /** Becomes another in ways of its own alone, never by a step or a file. */
  byItself?: boolean;
  /** Written in the fixed-width face, as stock numbers are. */
  mono?: boolean;
};

export type FieldPlace = 'item' | 'listing' | 'combination';

/** What the catalogue knows of a field. */
export type Field = {
  /** `title`, `attributes.Colour`, `own.shelf`; on a listing `title`, `attr.colour`, `extra.section`. */
  id: string;
  label: string;
  kind: Kind;
  on: FieldPlace;
  /** What a stored value must be. */
  schema: z.ZodType<Json>;
  /** The value of a field in which nothing was written. */
  empty: Json;
  traits: Traits;
  /** What a person typed or a file holds, as a value of the field, or why it is none. */
  read(text: string, context: FieldContext): Read;
  /** A value as text; reading it again gives the same value. */
  show(value: Json, context: FieldContext): string;
  same(a: Json | undefined, b: Json | undefined): boolean;
};

export type FieldEntry = Pick<Field, 'label' | 'kind'> & {
  schema?: z.ZodType;
  empty?: Json;
  traits?: Traits;
};

function emptyOf(kind: Kind): Json {
  switch (kind.is) {
    case 'text':
    case 'rich':
    case 'clip':
      return '';
    case 'list':
    case 'photos':
    case 'axes':
    case 'combinations':
      return [];
    case 'map':
      return {};
    default:
      return null;
  }
}

/** A value of this kind, or nothing. */
const schemaOf = (kind: Kind): z.ZodType<Json> =>
  jsonSchema.superRefine((value, context) => {
    const fault = value === null ? null : faultAs(kind, value);
    if (fault) context.addIssue({ code: 'custom', message: fault });
  });

/** An entry of the catalogue with its verbs. */
export function makeField(on: FieldPlace, id: string, entry: FieldEntry): Field {
  const { label, kind, traits = {} } = entry;
  const empty = entry.empty === undefined ? emptyOf(kind) : entry.empty;
  return {
    id,
    label,
    kind,
    on,
    schema: (entry.schema as z.ZodType<Json> | undefined) ?? schemaOf(kind), // a field's own schema takes JSON values only
    empty,
    traits,
    read(text, context) {
      const read = readAs(kind, text, context);
      if ('problem' in read) return read;
      if (read.value === null) return { value: empty };
      const fault = faultAs(kind, read.value);
      return fault ? { problem: fault } : read;
    },
    show: (value, context) => showAs(kind, value, context),
    same: (a, b) => sameJson(a ?? empty, b ?? empty),
  };
}
