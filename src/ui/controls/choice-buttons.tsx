/** One of a few, each a button; with `all` none of them may be chosen as well. */
export function ChoiceButtons<T extends string>({
  legend,
  options,
  words,
  value,
  choose,
  all,
}: {
  legend: string;
  options: readonly T[];
  words: Record<T, string>;
  value: T | null;
  choose: (value: T | null) => void;
  all?: string;
}) {
  return (
    <fieldset className="flex flex-wrap gap-1">
      <legend className="sr-only">{legend}</legend>
      {(all ? [null, ...options] : options).map((option) => (
        <button
          key={option ?? 'all'}
          type="button"
          aria-pressed={value === option}
          className={`btn btn-sm ${value === option ? 'bg-base-300' : 'btn-ghost'}`}
          onClick={() => choose(option)}
        >
          {option ? words[option] : all}
        </button>
      ))}
    </fieldset>
  );
}
