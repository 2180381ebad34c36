import { diffWordsWithSpace } from 'diff';

/** Unchanged words that are shown beside a change. */
const around = 28;

const shortened = (text: string, isFirst: boolean, isLast: boolean): string => {
  if (text.length <= around * 2) return text;
  const head = isFirst ? '' : text.slice(0, around).replace(/\S+$/, '');
  const tail = isLast ? '' : text.slice(-around).replace(/^\S+/, '');
  return `${head} … ${tail}`;
};

/** Old and new in one line: what went is struck through, what came is marked. */
export function WordDiff({ before, after }: { before: string; after: string }) {
  if (before === '') return <ins className="no-underline font-semibold">{after}</ins>;
  const parts = diffWordsWithSpace(before, after);
  return (
    <span className="whitespace-pre-line break-words">
      {parts.map((part, at) => {
        const key = `${at} ${part.value}`;
        if (part.removed)
          return (
            <del key={key} className="quiet">
              {part.value}
            </del>
          );
        if (part.added)
          return (
            <ins key={key} className="rounded bg-success/20 font-semibold no-underline">
              {part.value}
            </ins>
          );
        return <span key={key}>{shortened(part.value, at === 0, at === parts.length - 1)}</span>;
      })}
      {after === '' ? <span className="quiet"> (empty)</span> : null}
    </span>
  );
}
