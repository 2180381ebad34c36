/** An account as the outbox sees it: what its marketplace allows, and what waits. */
export type Lane = { perMinute: number; waiting: number };
/** Machines, and what one change that is sent costs on them, in milliseconds of a core. */
export type House = {
  /** Machines that send; each account is sent for by one of them at a time. */
  senders: number;
  coresEach: number;
  senderMs: number;
  /** The node that is written to. The others hold the same, and write it again. */
  databaseCores: number;
  databaseMs: number;
  /** Everything on one machine: its cores are shared by all of it. */
  shared?: { cores: number; otherMs: number };
};

const stepSeconds = 0.25;
const longestSeconds = 7 * 86_400;

/**
 * How long it takes until nothing waits, in seconds: step by step each lane sends what its pace, its sender's cores and the
 * database's cores leave. A lane is one worker's at a time, so accounts are dealt out among the senders.
 */
export function secondsToSend(lanes: readonly Lane[], house: House): number {
  const left = lanes.map((one) => one.waiting);
  for (let at = 0; at < longestSeconds; at += stepSeconds) {
    if (left.every((count) => count <= 0)) return at;
    let database = (house.databaseCores * 1_000 * stepSeconds) / house.databaseMs;
    let shared = house.shared
      ? (house.shared.cores * 1_000 * stepSeconds) / (house.senderMs + house.databaseMs + house.shared.otherMs)
      : Number.POSITIVE_INFINITY;
    const senders = Array.from(
      { length: house.senders },
      () => (house.coresEach * 1_000 * stepSeconds) / house.senderMs,
    );
    // What is scarce is shared by turns.
    const turns = 8;
    for (let turn = 0; turn < turns; turn++)
      for (const [index, lane] of lanes.entries()) {
        const sender = index % house.senders;
        const most = (lane.perMinute / 60) * (stepSeconds / turns);
        const sent = Math.min(left[index] ?? 0, most, senders[sender] ?? 0, database, shared);
        left[index] = (left[index] ?? 0) - sent;
        senders[sender] = (senders[sender] ?? 0) - sent;
        database -= sent;
        shared -= sent;
      }
  }
  return Number.POSITIVE_INFINITY;
}

/** Changes a minute that such a house sends as long as there is enough to send. */
export function perMinute(lanes: readonly Lane[], house: House): number {
  const full = lanes.map((one) => ({ ...one, waiting: one.perMinute * 10 }));
  const all = full.reduce((sum, one) => sum + one.waiting, 0);
  return (all * 60) / secondsToSend(full, house);
}
