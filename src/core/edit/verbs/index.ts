import { z } from 'zod';
import type { Field, KindName } from '../../field';
import type { Json } from '../../json';
import * as amounts from './amounts';
import { axesVerb } from './axes';
import { makeClipVerb } from './clip';
import { fillVerb } from './fill';
import { followSalesVerb } from './follow-sales';
import * as lists from './lists';
import * as others from './others';
import * as photos from './photos';
import { asFirstVerb, boxVerb, byTermsVerb, suggestVerb } from './proposed';
import { clearVerb, setVerb } from './set';
import { solveVerb } from './solve';
import * as texts from './texts';
import type { Verb, VerbContext, VerbOutcome } from './verb';

export { roundingLabels } from './amounts';
export { cropShapes, putPlaces, whichLabels } from './photos';
export { goalLabels } from './solve';
export { caseLabels } from './texts';
export type { WantedNet } from './wanted-net';

/** The list of verbs; a new one is an entry of its own kind's file and a line here. */
const all = [
  setVerb,
  clearVerb,
  texts.beforeVerb,
  texts.afterVerb,
  texts.replaceVerb,
  texts.caseVerb,
  texts.cutVerb,
  fillVerb,
  amounts.percentVerb,
  amounts.amountVerb,
  amounts.formulaVerb,
  solveVerb,
  amounts.endingVerb,
  amounts.boundsVerb,
  amounts.addVerb,
  amounts.allowanceVerb,
  lists.addToVerb,
  lists.removeFromVerb,
  lists.replaceInVerb,
  lists.sortVerb,
  lists.keepFirstVerb,
  others.translateVerb,
  others.shiftVerb,
  others.setNameVerb,
  others.removeNameVerb,
  others.renameValueVerb,
  others.takeVerb,
  others.priceRuleVerb,
  boxVerb,
  suggestVerb,
  byTermsVerb,
  axesVerb,
  followSalesVerb,
  asFirstVerb,
  photos.putPhotoVerb,
  photos.replacePhotoVerb,
  photos.takePhotoOutVerb,
  photos.removePlacesVerb,
  photos.orderPhotosVerb,
  photos.originalLastVerb,
  photos.cropPhotosVerb,
  photos.turnPhotosVerb,
  photos.lightPhotosVerb,
  photos.lightByItselfVerb,
  photos.cleanBackdropVerb,
  photos.putBadgeVerb,
  photos.takeBadgeOffVerb,
  photos.changeBadgeVerb,
  photos.plainPhotosVerb,
  makeClipVerb,
] as const;

export const doSchema = z.discriminatedUnion('verb', [
  setVerb.schema,
  clearVerb.schema,
  texts.beforeVerb.schema,
  texts.afterVerb.schema,
  texts.replaceVerb.schema,
  texts.caseVerb.schema,
  texts.cutVerb.schema,
  fillVerb.schema,
  amounts.percentVerb.schema,
  amounts.amountVerb.schema,
  amounts.formulaVerb.schema,
  solveVerb.schema,
  amounts.endingVerb.schema,
  amounts.boundsVerb.schema,
  amounts.addVerb.schema,
  amounts.allowanceVerb.schema,
  lists.addToVerb.schema,
  lists.removeFromVerb.schema,
  lists.replaceInVerb.schema,
  lists.sortVerb.schema,
  lists.keepFirstVerb.schema,
  others.translateVerb.schema,
  others.shiftVerb.schema,
  others.setNameVerb.schema,
  others.removeNameVerb.schema,
  others.renameValueVerb.schema,
  others.takeVerb.schema,
  others.priceRuleVerb.schema,
  boxVerb.schema,
  suggestVerb.schema,
  byTermsVerb.schema,
  axesVerb.schema,
  followSalesVerb.schema,
  asFirstVerb.schema,
  photos.putPhotoVerb.schema,
  photos.replacePhotoVerb.schema,
  photos.takePhotoOutVerb.schema,
  photos.removePlacesVerb.schema,
  photos.orderPhotosVerb.schema,
  photos.originalLastVerb.schema,
  photos.cropPhotosVerb.schema,
  photos.turnPhotosVerb.schema,
  photos.lightPhotosVerb.schema,
  photos.lightByItselfVerb.schema,
  photos.cleanBackdropVerb.schema,
  photos.putBadgeVerb.schema,
  photos.takeBadgeOffVerb.schema,
  photos.changeBadgeVerb.schema,
  photos.plainPhotosVerb.schema,
  makeClipVerb.schema,
]);
export type Do = z.infer<typeof doSchema>;
export type VerbName = Do['verb'];

// Each entry's schema names it: a verb gets its own arguments.
const verbs = new Map(all.map((one) => [one.name, one as unknown as Verb<VerbName, z.ZodType<Do>>]));

const isAmong = (names: readonly string[] | undefined, field: string) => names === undefined || names.includes(field);

/** The verbs that a kind of field has, in the order in which they are offered; of one field only those that are for it. */
export const verbsFor = (kind: KindName, field?: string): { name: VerbName; label: string }[] =>
  [...verbs.values()]
    .filter((one) => one.kinds.includes(kind) && (field === undefined || isAmong(one.fields, field)))
    .map(({ name, label }) => ({ name, label }));

export function isFor(verb: VerbName, { kind, id }: Pick<Field, 'kind' | 'id'>): boolean {
  const found = verbs.get(verb);
  return found !== undefined && found.kinds.includes(kind.is) && isAmong(found.fields, id);
}

export function applyVerb(what: Do, value: Json, context: VerbContext): VerbOutcome {
  const verb = verbs.get(what.verb);
  return verb ? verb.apply(what, value, context) : { refused: 'There is no such verb' };
}

/** What it does in words, to follow the field's name. */
export const sayVerb = (what: Do, context: Pick<VerbContext, 'field' | 'currency'>): string =>
  verbs.get(what.verb)?.say(what, context) ?? what.verb;
