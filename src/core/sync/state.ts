export const wantedStates = ['none', 'draft', 'live', 'ended'] as const;
/** `off`: out of sight there, kept with its number, and can be switched on again. */
export const remoteStates = ['none', 'maybe', 'review', 'live', 'off', 'ended', 'sold', 'refused', 'gone'] as const;

/** Where something stands there, or may stand: of `maybe` a creation was sent and never answered. */
export const thereStates: readonly (typeof remoteStates)[number][] = ['live', 'review', 'maybe'];

/** Whether a sale, an end or a change concerns the marketplace: something of the item stands there, or may. */
export const standsThere = (remote: string | null | undefined): boolean =>
  thereStates.some((state) => state === remote);

/**
 * What is known of a listing, as facts. The state that people see is derived from them here and nowhere else; the
 * database's generated column is made from the same rules.
 */
export type ListingFacts = {
  /** What we want there. */
  wanted: (typeof wantedStates)[number];
  /** What they last showed or answered. */
  remote: (typeof remoteStates)[number];
  /** We changed something and did not send it yet. */
  dirty: boolean;
  /** They show something else than what we last sent. */
  drifted: boolean;
  /** A job for this listing waits or runs. */
  busy: boolean;
  /** The last job failed in a way that a person has to mend. */
  problem: boolean;
};

export const knotStates = [
  'none',
  'draft',
  'waiting',
  'live',
  'changed',
  'conflict',
  'attention',
  'ended',
  'sold',
] as const;
export type KnotState = (typeof knotStates)[number];

/** What buyers see there now, whatever of it is still to be sent or settled. */
export const liveStates: KnotState[] = ['live', 'changed', 'conflict'];

export const knotLabels: Record<KnotState, string> = {
  none: 'Not listed',
  draft: 'Draft',
  waiting: 'Being sent or reviewed',
  live: 'Live',
  changed: 'Live, changes not sent',
  conflict: 'Changed on both sides',
  attention: 'Needs a person',
  ended: 'Ended',
  sold: 'Sold',
};

type When = { [F in keyof ListingFacts]?: ListingFacts[F][] };

/** First match wins. */
export const stateRules: { state: KnotState; when: When }[] = [
  { state: 'attention', when: { problem: [true] } },
  { state: 'sold', when: { remote: ['sold'] } },
  { state: 'waiting', when: { busy: [true], remote: ['none', 'off', 'ended', 'refused', 'gone'] } },
  { state: 'waiting', when: { remote: ['review', 'maybe'] } },
  { state: 'conflict', when: { remote: ['live'], dirty: [true], drifted: [true] } },
  { state: 'changed', when: { remote: ['live'], dirty: [true] } },
  { state: 'changed', when: { remote: ['live'], drifted: [true] } },
  { state: 'live', when: { remote: ['live'] } },
  { state: 'ended', when: { remote: ['off', 'ended', 'refused', 'gone'] } },
  { state: 'draft', when: { wanted: ['draft', 'live'] } },
];

/**
 * The state of a listing, for the law that holds the database's generated column to these rules.
 * @internal
 */
export function knotState(facts: ListingFacts): KnotState {
  for (const { state, when } of stateRules) {
    const keys = Object.keys(when) as (keyof ListingFacts)[]; // keys of When are keys of the facts
    if (keys.every((key) => (when[key] as unknown[]).includes(facts[key]))) return state;
  }
  return 'none';
}

const literal = (value: string | boolean) => (typeof value === 'boolean' ? (value ? '1' : '0') : `'${value}'`);

/** The same rules as an SQL expression over columns of the same names. */
export function stateSql(): string {
  const cases = stateRules.map(({ state, when }) => {
    const terms = Object.entries(when).map(([key, values]) => `\`${key}\` in (${values.map(literal).join(', ')})`);
    return `when ${terms.join(' and ')} then '${state}'`;
  });
  return `case ${cases.join(' ')} else 'none' end`;
}
