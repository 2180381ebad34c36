import { NettingError } from '../errors';
import type { ConditionGrade } from '../item';
import { type ContentKind, type ContentLine, mostLots, mostPieces, type Parts } from './contents';

export type Opening = {
  /** How many such sets there are. */
  times: number;
  /** Which kinds of lines count, besides parts. */
  with: readonly Exclude<ContentKind, 'part'>[];
  /** Sets within it are opened, too; else each stays a piece. */
  opensSets: boolean;
  condition: ConditionGrade | null;
};

/** A set: what it is called, and its entry, by which the contents of sets within others are found. */
export type Opened = { entry: string; name: string; lines: readonly ContentLine[] };

/**
 * Everything that lies in so many sets, line by line, sets within sets opened to any depth.
 * @param contentsOf the contents of sets within it, by their entry; one that is not there is kept whole
 * @throws NettingError where a set lies within itself, and where there are more pieces than anybody breaks up
 */
export function expandContents(
  set: Opened,
  contentsOf: ReadonlyMap<string, readonly ContentLine[]>,
  opening: Opening,
): Parts[] {
  const all: Parts[] = [];
  let pieces = 0;
  const open = (within: readonly Opened[], times: number): void => {
    const here = within.at(-1);
    for (const line of here?.lines ?? []) {
      if (line.kind !== 'part' && !opening.with.includes(line.kind)) continue;
      const quantity = line.quantity * times;
      const lines = line.isSet && opening.opensSets ? contentsOf.get(line.entry) : undefined;
      if (lines) {
        if (within.some((one) => one.entry !== '' && one.entry === line.entry)) throw cycle(within, line);
        open([...within, { entry: line.entry, name: line.name, lines }], quantity);
        continue;
      }
      pieces += quantity;
      if (pieces > mostPieces || all.length >= mostLots) throw tooMany();
      const { entry, name, finish, grams, sort, kind } = line;
      const from = [{ within: within.map((one) => one.name), name, kind, quantity }];
      const condition = line.said?.condition ?? opening.condition;
      all.push({
        entry,
        name,
        finish,
        condition,
        quantity,
        grams,
        sort,
        from,
        ...(line.said ? { said: line.said } : {}),
      });
    }
  };
  open([set], opening.times);
  return all;
}

const cycle = (within: readonly Opened[], line: ContentLine): NettingError =>
  new NettingError(
    'invalid',
    `${line.name} lies within itself: ${[...within, line].map((one) => one.name).join(' → ')}`,
    {
      field: 'contents',
      fix: 'Keep sets within it whole',
    },
  );

const tooMany = (): NettingError =>
  new NettingError(
    'invalid',
    `More than ${mostLots.toLocaleString('en')} lines or ${mostPieces.toLocaleString('en')} pieces`,
    { field: 'times', fix: 'Break up fewer sets at once' },
  );
