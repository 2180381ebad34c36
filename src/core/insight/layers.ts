import type { MovementReason } from '../item';

/** A line of the stock ledger. */
export type LedgerLine = {
  delta: number;
  reason: MovementReason;
  saleId: number | null;
  at: Date;
};

/**
 * Units of an item that came in together and left together: what is here still, what was sold, what went away unsold (lost,
 * corrected, given back, or now part of a set).
 */
export type Layer = {
  units: number;
  inAt: Date;
  /** It came with the item's first line of the ledger: the item's own day of purchase is its day. */
  isFirst: boolean;
  outAt: Date | null;
  saleId: number | null;
  how: 'here' | 'sold' | 'gone';
};

/** What moved at the same moment for the same reason: units that only change their place come to nothing. */
function together(lines: readonly LedgerLine[]): LedgerLine[] {
  const sums: LedgerLine[] = [];
  for (const line of lines) {
    const last = sums.at(-1);
    if (last && last.reason === line.reason && last.saleId === line.saleId && Number(last.at) === Number(line.at))
      last.delta += line.delta;
    else sums.push({ ...line });
  }
  return sums.filter((one) => one.delta !== 0);
}

type Open = { units: number; inAt: Date; isFirst: boolean };

/** The units that a sale took and gives back, put where they lay. */
function giveBack(open: Open[], out: Layer[], saleId: number, units: number): number {
  let left = units;
  for (let at = out.length - 1; at >= 0 && left > 0; at--) {
    const layer = out[at];
    if (layer?.how !== 'sold' || layer.saleId !== saleId || layer.units === 0) continue;
    const back = Math.min(left, layer.units);
    left -= back;
    layer.units -= back;
    open.push({ units: back, inAt: layer.inAt, isFirst: layer.isFirst });
  }
  open.sort((a, b) => Number(a.inAt) - Number(b.inAt));
  return left;
}

/** Takes units of what came in first. @returns what was taken; less, where less is there */
function takeOldest(open: Open[], units: number): Open[] {
  const taken: Open[] = [];
  for (let left = units; left > 0; ) {
    const [oldest] = open;
    if (!oldest) break;
    const part = Math.min(left, oldest.units);
    left -= part;
    oldest.units -= part;
    taken.push({ ...oldest, units: part });
    if (oldest.units === 0) open.shift();
  }
  return taken;
}

const unitsOf = (some: readonly Open[]): number => some.reduce((sum, one) => sum + one.units, 0);

/**
 * The layers of one item: what came in first leaves first (FIFO). What was sold beyond what was there has no layer; what
 * comes in later fills that gap before it lies here. Units of the layers that are here, less the gap, are the item's quantity.
 * @param lines the item's whole ledger, oldest first, of all places
 */
export function layersOf(lines: readonly LedgerLine[]): Layer[] {
  const open: Open[] = [];
  const out: Layer[] = [];
  let gap = 0;
  let isFirst = true;
  for (const { delta, reason, saleId, at } of together(lines)) {
    if (delta > 0) {
      const back = reason === 'cancelled' && saleId !== null ? delta - giveBack(open, out, saleId, delta) : 0;
      if (delta > back) open.push({ units: delta - back, inAt: at, isFirst });
      gap -= unitsOf(takeOldest(open, gap));
    } else {
      const taken = takeOldest(open, -delta);
      gap += -delta - unitsOf(taken);
      const isSold = reason === 'sold';
      for (const one of taken)
        out.push({ ...one, outAt: at, saleId: isSold ? saleId : null, how: isSold ? 'sold' : 'gone' });
    }
    isFirst = false;
  }
  return [
    ...out.filter((one) => one.units > 0),
    ...open.map((one) => ({ ...one, outAt: null, saleId: null, how: 'here' as const })),
  ];
}
