/**
 * A marketplace that does not answer is left alone until one small question is answered again: the circuit breaker
 * of M. T. Nygard, "Release It!" (2007), chapter 5. Closed: work goes on. Open: nothing is sent, now and then one probe.
 */
export type Health = { failures: number; unwellSince: Date | null; probeAt: Date | null };

export const healthy: Health = { failures: 0, unwellSince: null, probeAt: null };

const failuresToOpen = 5;
const firstProbeMs = 2_000;
const longestProbeMs = 120_000;

/** After a request that was not answered, or answered by a fault of theirs. Each further one puts the next probe off twice as far. */
export function afterSilence(health: Health, now: Date): Health {
  const failures = health.failures + 1;
  if (failures < failuresToOpen) return { ...health, failures };
  const pause = Math.min(longestProbeMs, firstProbeMs * 2 ** (failures - failuresToOpen));
  return { failures, unwellSince: health.unwellSince ?? now, probeAt: new Date(now.getTime() + pause) };
}

/** Any answer, also a refusal, shows that they are there. */
export const afterAnswer = (_health: Health): Health => healthy;

export type Permission = 'send' | 'probe' | 'wait';

/** What may be done now. */
export function permission(health: Pick<Health, 'unwellSince' | 'probeAt'>, now: Date): Permission {
  if (!health.unwellSince) return 'send';
  return !health.probeAt || health.probeAt <= now ? 'probe' : 'wait';
}
