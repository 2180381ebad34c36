import { placingFault } from '@/core/artwork/offered-prints';
import type { Verdict } from '@/core/artwork/stands';
import type { SightsOfArtwork } from '@/services/artwork/find-sights';

export type Sight = SightsOfArtwork['sights'][number] & {
  artwork: SightsOfArtwork;
  key: string;
  /** What is wrong with it, in words; empty where nothing is. */
  fault: string;
};

export const sightKey = (itemId: number, { product, ground }: { product: string; ground: string }): string =>
  `${itemId} ${product} / ${ground}`;

/** Everything that is looked over, artwork by artwork. */
export const sightsIn = (artworks: readonly SightsOfArtwork[]): Sight[] =>
  artworks.flatMap((artwork) =>
    artwork.sights.map((one) => ({
      ...one,
      artwork,
      key: sightKey(artwork.itemId, one),
      fault: placingFault(one.area, artwork, one.placing)?.words ?? (isLost(one) ? one.why : ''),
    })),
  );

/** Offered on a ground on which it does not read. */
const isLost = ({ isOffered, score }: SightsOfArtwork['sights'][number]) => isOffered && score !== null && score < 50;

export const sieves = {
  all: 'All',
  open: 'Not looked at',
  wrong: 'With something wrong',
  off: 'Called off',
} as const;
export type Sieve = keyof typeof sieves;

export function isThrough(sight: Sight, verdict: Verdict | null, sieve: Sieve): boolean {
  switch (sieve) {
    case 'all':
      return true;
    case 'open':
      return verdict === null;
    case 'wrong':
      return sight.fault !== '';
    case 'off':
      return verdict === 'off';
  }
}

export type Row = { is: 'head'; artwork: SightsOfArtwork } | { is: 'cells'; sights: Sight[]; from: number };

/** Rows of a list: each artwork begins with its name, its sights stand below it in columns. */
export function rowsIn(sights: readonly Sight[], columns: number): Row[] {
  const rows: Row[] = [];
  let artwork: SightsOfArtwork | null = null;
  for (const [index, sight] of sights.entries()) {
    const last = rows.at(-1);
    if (sight.artwork !== artwork) {
      artwork = sight.artwork;
      rows.push({ is: 'head', artwork }, { is: 'cells', sights: [sight], from: index });
    } else if (last?.is === 'cells' && last.sights.length < columns) last.sights.push(sight);
    else rows.push({ is: 'cells', sights: [sight], from: index });
  }
  return rows;
}

/** Where an arrow leads from one of the sights, by the rows that are seen. */
export function stepFrom(rows: readonly Row[], active: number, key: string, count: number): number {
  const cells = rows.flatMap((row) => (row.is === 'cells' ? [row] : []));
  const at = cells.findIndex((row) => active >= row.from && active < row.from + row.sights.length);
  const column = active - (cells[at]?.from ?? 0);
  const inRow = (row: (typeof cells)[number] | undefined) =>
    row ? row.from + Math.min(column, row.sights.length - 1) : active;
  switch (key) {
    case 'ArrowRight':
      return Math.min(count - 1, active + 1);
    case 'ArrowLeft':
      return Math.max(0, active - 1);
    case 'ArrowDown':
      return inRow(cells[at + 1]);
    case 'ArrowUp':
      return inRow(cells[at - 1]);
    case 'Home':
      return 0;
    case 'End':
      return count - 1;
    default:
      return active;
  }
}
