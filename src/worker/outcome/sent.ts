import type { Content } from '../../core/listing';
import type { RemoteListing } from '../../markets';

export type Sent = {
  outcome: 'created' | 'changed' | 'ended' | 'renewed';
  /** The fields that a change carried, and those that are shown with them; everything for the others. */
  fields?: string[];
  shown?: string[];
  content: Content;
  remote: RemoteListing;
  /** Of what was created: it was there before, and is only in sight again. */
  isSwitchedOn?: boolean;
  /** What was settled is an earlier request: what is wanted by now is looked at in one more round. */
  earlier?: boolean;
};

export const numberOrNull = (value: unknown) => (typeof value === 'number' ? value : null);

/** Their showing of what we last sent: of a change only the fields that it carried, so that theirs are not taken for ours. */
export function baseAfter(before: Content | null, sent: Sent): Content {
  if (!before || !sent.fields) return sent.remote.content;
  const base = { ...before };
  for (const field of sent.shown ?? sent.fields) {
    const shown = sent.remote.content[field];
    if (shown === undefined) delete base[field];
    else base[field] = shown;
  }
  return base;
}

/** What we last sent: after a change of some fields, those of it. */
export function sentAfter(before: Content | null, sent: Sent): Content {
  if (!before || !sent.fields) return sent.content;
  const now = { ...before };
  for (const field of sent.fields) {
    const value = sent.content[field];
    if (value === undefined || value === null) delete now[field];
    else now[field] = value;
  }
  return now;
}
