import { useEffect, useState } from 'react';

/** So many rows further at once, and they are flown over, not read. */
const farRows = 8;
/** Rows that are drawn whole in one frame, and how long the flight has to be over before the first of them is. */
const rowsAtOnce = 4;
const restMs = 60;

/**
 * Which rows are drawn whole. While one flies over thousands of them they show what they are and no more; as soon as it
 * rests, the rest of them is drawn, a few in each frame, so that no frame waits.
 * @param first the first row in view, @param last the last
 * @returns the row before which all are whole
 */
export function useWholeRows(first: number, last: number): number {
  const [drawn, setDrawn] = useState({ first, wholeTo: Number.POSITIVE_INFINITY, isFlying: false });
  if (drawn.first !== first) {
    const isFar = Math.abs(first - drawn.first) > farRows;
    setDrawn({ first, wholeTo: isFar ? first : drawn.wholeTo, isFlying: isFar || drawn.isFlying });
  }
  useEffect(() => {
    if (drawn.wholeTo > last) return;
    const more = () =>
      setDrawn((now) => {
        const wholeTo = Math.max(now.wholeTo, now.first) + rowsAtOnce;
        return { ...now, isFlying: false, wholeTo: wholeTo > last ? Number.POSITIVE_INFINITY : wholeTo };
      });
    if (drawn.isFlying) {
      const timer = setTimeout(more, restMs);
      return () => clearTimeout(timer);
    }
    const frame = requestAnimationFrame(more);
    return () => cancelAnimationFrame(frame);
  }, [drawn, last]);
  return drawn.wholeTo;
}
