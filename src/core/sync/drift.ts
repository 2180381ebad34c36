import { z } from 'zod';
import { listingField } from '../field/listing-fields';
import type { Content } from '../listing/fields';
import { type MergedField, mergeFields } from './snapshot';

/** What is done when only they changed a field: take it over into our own, put ours back, or ask a person. */
export const driftAnswers = ['take', 'put-back', 'ask'] as const;
export type DriftAnswer = (typeof driftAnswers)[number];

/** By field; `*` stands for every field that is not named. Without any rule a person is asked. */
export const driftRulesSchema = z.record(z.string().max(80), z.enum(driftAnswers));
export type DriftRules = z.infer<typeof driftRulesSchema>;

export const answerFor = (rules: DriftRules, field: string): DriftAnswer => rules[field] ?? rules['*'] ?? 'ask';

export type DriftField = MergedField & { answer: DriftAnswer };

/**
 * Field by field what has to be settled between a listing and its marketplace: what they changed, alone or besides
 * us. What only we changed is on its way anyhow and is left out; so is what both changed to the same.
 * @param base what they showed when they confirmed what we last sent
 * @param wanted what they shall hold, in the words of `sent`
 * @param sent what we last sent: where we have not changed a field since, what they showed then stands for it
 * @param seen what they show now
 */
export function driftOf(
  snapshots: { base: Content; wanted: Content; sent: Content; seen: Content },
  rules: DriftRules,
): DriftField[] {
  const { base, wanted, sent, seen } = snapshots;
  // Their way of showing a value may differ from ours of sending it; so theirs is compared with theirs.
  const ours: Content = {};
  for (const field of Object.keys(base)) {
    const changed = JSON.stringify(sent[field] ?? null) !== JSON.stringify(wanted[field] ?? null);
    ours[field] = (changed ? wanted[field] : base[field]) ?? null;
  }
  const known = Object.fromEntries(Object.entries(seen).filter(([field]) => field in base));
  return mergeFields(base, ours, known)
    .filter((one) => one.verdict === 'theirs' || one.verdict === 'conflict')
    .filter((one) => one.field !== 'quantity' && one.field !== 'sku')
    .map((one) => ({ ...one, answer: one.verdict === 'conflict' ? 'ask' : answerFor(rules, one.field) }));
}

/** Whether their value of a field can become a listing's own: pictures and stock have their own ways. */
export const canBeTaken = (field: string): boolean => listingField(field)?.traits.takeable !== false;
