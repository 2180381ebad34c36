import { sameJson } from '../json';
import type { Content } from '../listing/fields';
import { compared } from './compared';

/**
 * Fields of a change that they answered and yet did not take: they show what they showed before, although something else
 * was sent; or more units than were sent. What they write in another way than ours is theirs to decide.
 * @param sent what was sent of these fields
 * @param before what they showed of them before; a field that is missing was not known
 * @param shown what they show now
 */
export function notTakenFields(fields: readonly string[], sent: Content, before: Content, shown: Content): string[] {
  return fields.filter((field) => {
    if (!(field in shown)) return false;
    const [now, asked] = [shown, sent].map((side) => compared(field, side[field] ?? null, true));
    if (sameJson(now, asked)) return false;
    if (field === 'quantity' && typeof now === 'number' && typeof asked === 'number') return now > asked;
    return field in before && sameJson(shown[field], before[field]);
  });
}
