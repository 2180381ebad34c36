import { type Sieve, sieves } from './sights';

const all = Object.keys(sieves) as Sieve[]; // keys of the constant

/** Which of the sights are shown, and what the keys do. */
export const SieveBar = ({ sieve, sift }: { sieve: Sieve; sift: (next: Sieve) => void }) => (
  <fieldset className="flex flex-wrap items-center gap-2 border-b border-base-300 px-4 py-1.5 text-[12px]">
    <legend className="sr-only">Which are shown</legend>
    {all.map((one) => (
      <button
        key={one}
        type="button"
        aria-pressed={sieve === one}
        className={`btn btn-xs ${sieve === one ? 'bg-base-300' : 'btn-ghost'}`}
        onClick={() => sift(one)}
      >
        {sieves[one]}
      </button>
    ))}
    <span className="quiet ml-auto">
      Arrows go on, <kbd>G</kbd> good, <kbd>O</kbd> off, <kbd>A</kbd> adjust, <kbd>U</kbd> take back
    </span>
  </fieldset>
);
