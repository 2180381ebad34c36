import { type ReactNode, useRef } from 'react';

/** Something secret that is shown now and never again, ready to be copied. */
export function ShownOnce({ label, value, children }: { label: string; value: string; children: ReactNode }) {
  const field = useRef<HTMLInputElement>(null);
  /** Marked in any case: where the browser gives no clipboard, over HTTP in a network at home, a key copies it. */
  const copy = () => {
    field.current?.select();
    void navigator.clipboard?.writeText(value);
  };
  return (
    <div className="mt-3 rounded border border-base-300 p-3" role="status">
      <p>{children}</p>
      <div className="mt-2 flex gap-2">
        <input
          ref={field}
          className="input input-sm mono w-full"
          readOnly
          aria-label={label}
          value={value}
          onFocus={({ target }) => target.select()}
        />
        <button type="button" className="btn btn-sm" onClick={copy}>
          Copy
        </button>
      </div>
    </div>
  );
}
