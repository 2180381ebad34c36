import type { Json } from '../../json';
import type { FieldContext, Kind, KindName, KindVerbs, Read } from '../kind';
import { moneyKind, numberKind, weightKind, wholeKind } from './amounts';
import { booleanKind, choiceKind, dateKind } from './choices';
import { clipKind } from './clip';
import { lengthKind, sizeKind } from './lengths';
import { listKind, mapKind, photosKind } from './lists';
import { richKind, textKind } from './text';
import { axesKind, combinationsKind, priceRuleKind } from './variations';

/** The list of kinds; a new one is a file of its own and a line here. */
const kinds: { [Name in KindName]: KindVerbs<Name> } = {
  text: textKind,
  rich: richKind,
  money: moneyKind,
  whole: wholeKind,
  number: numberKind,
  weight: weightKind,
  length: lengthKind,
  size: sizeKind,
  date: dateKind,
  choice: choiceKind,
  boolean: booleanKind,
  list: listKind,
  map: mapKind,
  photos: photosKind,
  clip: clipKind,
  axes: axesKind,
  combinations: combinationsKind,
  priceRule: priceRuleKind,
};

// The verbs of a kind are those of its own name: the record above says so.
const verbsOf = (kind: Kind) => kinds[kind.is] as KindVerbs<KindName>;

export const readAs = (kind: Kind, text: string, context: FieldContext): Read =>
  verbsOf(kind).read(kind, text, context);
export const showAs = (kind: Kind, value: Json, context: FieldContext): string =>
  verbsOf(kind).show(kind, value, context);
export const faultAs = (kind: Kind, value: Json): string | null => verbsOf(kind).fault(kind, value);
