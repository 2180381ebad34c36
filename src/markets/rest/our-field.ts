import { NettingError } from '../../core/errors';
import type { RestManner } from './manner';

function aboutField(sentence: string, table: NonNullable<RestManner['sentences']>): string | undefined {
  for (const [pattern, field] of table) {
    const hit = pattern.exec(sentence);
    if (hit) return typeof field === 'string' ? field : field(hit);
  }
  return undefined;
}

/** Where the ids of properties are their names in small letters: a sentence that begins with one is about it. */
export const aboutAttribute: [RegExp, (hit: RegExpExecArray) => string] = [
  /^(?!The )(.+?) is (?:missing|too long|not one that we know)/,
  (hit) => `attr.${(hit[1] ?? '').toLowerCase().replace(/[^a-z0-9]+/g, '_')}`,
];

/** A refusal with our own field in it, from the pointer of the problem or from what the sentence is about. */
export function withOurField(error: unknown, manner: Pick<RestManner, 'wireFields' | 'sentences'>): unknown {
  if (!(error instanceof NettingError) || error.code !== 'market-refused') return error;
  const details = (error.facts.details ?? []).map((one) => ({
    ...one,
    field: manner.wireFields.back(one.field) ?? one.field,
  }));
  const spoken = aboutField(error.message.replace(/^\w+: /, ''), manner.sentences ?? []);
  return new NettingError(error.code, error.message, { ...error.facts, details, field: details[0]?.field ?? spoken });
}
