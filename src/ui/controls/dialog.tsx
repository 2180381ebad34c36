'use client';

import { X } from 'lucide-react';
import { type ReactNode, useEffect, useId, useRef } from 'react';

/** A dialog of the browser's own kind: it keeps the focus, Esc closes it, and the focus goes back where it was. */
export function Dialog({
  title,
  close,
  children,
  wide = false,
}: {
  title: string;
  close: () => void;
  children: ReactNode;
  wide?: boolean;
}) {
  const ref = useRef<HTMLDialogElement>(null);
  const heading = useId();
  useEffect(() => {
    const dialog = ref.current;
    if (!dialog?.open) dialog?.showModal();
    // A field that was drawn before the dialog was open could not take the focus by itself.
    dialog?.querySelector<HTMLElement>('[data-first]')?.focus();
    return () => dialog?.close();
  }, []);
  return (
    <dialog
      ref={ref}
      aria-labelledby={heading}
      onCancel={(event) => {
        event.preventDefault();
        close();
      }}
      className={`m-auto max-h-[92vh] overflow-auto whitespace-normal rounded border border-base-300 bg-base-100 p-0 text-left text-base-content shadow-xl backdrop:bg-black/40 ${wide ? 'w-[min(76rem,96vw)]' : 'w-[min(40rem,94vw)]'}`}
    >
      <header className="sticky top-0 z-10 flex items-center border-b border-base-300 bg-base-100 px-4 py-2">
        <h2 id={heading} className="font-semibold">
          {title}
        </h2>
        <button type="button" className="btn btn-ghost btn-xs btn-square ml-auto" aria-label="Close" onClick={close}>
          <X size={15} aria-hidden="true" />
        </button>
      </header>
      <div className="p-4">{children}</div>
    </dialog>
  );
}
