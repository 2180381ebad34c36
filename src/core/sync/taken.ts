import { sameJson } from '../json';
import type { Content } from '../listing/fields';

/**
 * Fields of a change that they answered and yet did not take: they show what they showed before, although something else
 * was sent; or more units than were sent. What they write in another way than ours is theirs to decide.
 * @param sent what was sent of these fields
 * @param before what they showed of them before; a field that is missing was not known
 * @param shown what they show now
 */
export function notTakenFields(fields: readonly string[], sent: Content, before: Content, shown: Content): string[] {
  return fields.filter((field) => {
    if (!(field in shown) || sameJson(shown[field], sent[field])) return false;
    const [now, asked] = [shown[field], sent[field]];
    if (field === 'quantity' && typeof now === 'number' && typeof asked === 'number') return now > asked;
    return field in before && sameJson(shown[field], before[field]);
  });
}
