import type { ComputedListing } from '../listing/compute';
import type { Content } from '../listing/fields';
import { diff, type FieldDiff } from './diff';
import type { ListingFacts } from './state';

export type PlannedAction =
  | { kind: 'create' }
  | { kind: 'update'; changes: FieldDiff[] }
  | { kind: 'end' }
  /** `unwanted`: it was to be published, and is a draft again. */
  | { kind: 'nothing'; why: string; unwanted?: true }
  | { kind: 'not-ready'; issues: ComputedListing['issues'] };

/**
 * What has to be done so that a marketplace holds what is wanted: the one place where it is decided.
 * @param sent what they confirmed last; null when nothing was ever sent
 */
export function planListing(
  facts: Pick<ListingFacts, 'wanted' | 'remote'>,
  computed: ComputedListing,
  sent: Content | null,
): PlannedAction {
  // What waits for its review is there already: it can be changed and taken back.
  const isLive = facts.remote === 'live' || facts.remote === 'review';
  const quantity = computed.content.quantity;
  const soldOut = typeof quantity !== 'number' || quantity < 1;
  if (facts.wanted === 'ended' || (isLive && soldOut)) {
    return isLive ? { kind: 'end' } : { kind: 'nothing', why: 'It is not live there' };
  }
  if (facts.wanted !== 'live') return { kind: 'nothing', why: 'It is kept as a draft' };
  // What was sold, ended or taken down there is made again only when a person asks for it (then it counts as never listed).
  if (facts.remote === 'sold') return { kind: 'nothing', why: 'It was sold there' };
  if (facts.remote === 'refused') return { kind: 'nothing', why: 'It was refused in review' };
  if (!isLive && facts.remote !== 'none' && facts.remote !== 'maybe')
    return { kind: 'nothing', why: 'It was ended there' };
  // Sold elsewhere while it waited: nobody has to be asked, and no place of the day is used for it.
  if (!isLive && soldOut) return { kind: 'nothing', why: 'It is sold out, so it is not listed', unwanted: true };
  if (isLive && sent) {
    const changes = diff(sent, computed.content);
    if (changes.length === 0) return { kind: 'nothing', why: 'It is the same there already' };
    return computed.ready ? { kind: 'update', changes } : { kind: 'not-ready', issues: computed.issues };
  }
  return computed.ready ? { kind: 'create' } : { kind: 'not-ready', issues: computed.issues };
}
