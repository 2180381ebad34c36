/** A time as a browser's box for it has it, by the clock on the wall. */
const asTyped = (date: Date): string =>
  new Date(date.getTime() - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);

/** Now, or a time at which the change is carried out. */
export function AtATime({ at, set }: { at: string | null; set: (at: string | null) => void }) {
  if (at === null)
    return (
      <button
        type="button"
        className="btn btn-ghost btn-xs"
        onClick={() => set(new Date(Math.ceil(Date.now() / 3_600_000 + 1) * 3_600_000).toISOString())}
      >
        At a time …
      </button>
    );
  return (
    <div className="flex items-center gap-1">
      <input
        type="datetime-local"
        aria-label="When it is carried out"
        className="input input-sm min-w-0 flex-1"
        value={asTyped(new Date(at))}
        onChange={({ target: { value } }) => {
          if (value) set(new Date(value).toISOString());
        }}
      />
      <button type="button" className="btn btn-ghost btn-xs" onClick={() => set(null)}>
        Now
      </button>
    </div>
  );
}
