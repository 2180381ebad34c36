import { pause } from '../support/drive.mjs';

const kinds = ['drop-after', 'drop-before', 'error-500', 'busy-429', 'slow', 'drop-after'];

/** Kills what it finds, at random moments, until it is told to end. */
export function killer(processes, random, victims, everyMs = 3_500) {
  let running = true;
  let kills = 0;
  const done = (async () => {
    while (running) {
      await pause(everyMs * (0.3 + random() * 1.4));
      const pid = running ? processes.pid(victims[Math.floor(random() * victims.length)]) : null;
      if (!pid) continue;
      try {
        process.kill(-pid, 'SIGKILL');
        kills++;
      } catch {
        // It was on its way down.
      }
    }
  })();
  return async () => {
    running = false;
    await done;
    return kills;
  };
}

/** Lets marketplaces misbehave, one after the other, until it is told to end. */
export function trouble(drive, markets, random, everyMs = 140) {
  let running = true;
  let faults = 0;
  const done = (async () => {
    while (running) {
      await drive(markets[Math.floor(random() * markets.length)], 'fault', {
        kind: kinds[Math.floor(random() * kinds.length)],
        times: 1,
        ms: 500 + random() * 1_000,
        ...(random() < 0.7 ? { method: 'POST' } : {}),
      });
      faults++;
      await pause(everyMs * (0.4 + random() * 1.2));
    }
  })();
  return async () => {
    running = false;
    await done;
    for (const market of markets) await drive(market, 'calm');
    return faults;
  };
}
