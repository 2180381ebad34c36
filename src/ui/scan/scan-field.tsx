'use client';

import { forwardRef, useEffect, useImperativeHandle, useRef } from 'react';
import { readScans } from '@/core/barcode/read-scan';
import { isWriting } from '@/ui/frame/is-writing';

/** A hand does not type so fast: so many milliseconds a sign at most, and a pause after the last. */
const scannerMs = 35;
const pauseMs = 120;
const leastSigns = 8;

type Props = {
  submit: (text: string) => void;
  undo: () => void;
  describedBy: string;
  label?: string;
  placeholder?: string;
};
const usual = {
  label: 'Scan a code, or type it or a name',
  placeholder: 'Scan, or type a code or a name',
};
export type ScanFieldHandle = { focus: () => void };

/**
 * The one field of the place. Whatever is typed while nothing else is written in is typed here; Enter or Tab ends it, and
 * what came as fast as from a scanner and is a code ends by itself.
 */
export const ScanField = forwardRef<ScanFieldHandle, Props>(function ScanField(
  { submit, undo, describedBy, label = usual.label, placeholder = usual.placeholder },
  ref,
) {
  const field = useRef<HTMLInputElement>(null);
  const latest = useRef({ submit, undo });
  latest.current = { submit, undo };
  const burst = useRef({ from: 0, timer: undefined as ReturnType<typeof setTimeout> | undefined });
  useImperativeHandle(ref, () => ({ focus: () => field.current?.focus() }));

  const take = () => {
    clearTimeout(burst.current.timer);
    const input = field.current;
    if (!input || input.value.trim() === '') return;
    const text = input.value;
    input.value = '';
    latest.current.submit(text);
  };

  useEffect(() => {
    field.current?.focus();
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || isWriting(event.target) || document.querySelector('dialog[open], [role=dialog]'))
        return;
      if (event.ctrlKey || event.metaKey) {
        if (event.key.toLowerCase() === 'z') {
          event.preventDefault();
          latest.current.undo();
        }
        return;
      }
      if (event.key.length === 1 && !event.altKey) field.current?.focus();
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, []);

  return (
    <input
      ref={field}
      type="text"
      // A list of what was scanned before would take the Enter.
      autoComplete="off"
      autoCapitalize="off"
      autoCorrect="off"
      spellCheck={false}
      enterKeyHint="done"
      maxLength={1_000}
      aria-label={label}
      aria-describedby={describedBy}
      placeholder={placeholder}
      className="input mono w-full shrink-0 text-lg"
      onKeyDown={(event) => {
        const { value } = event.currentTarget;
        if (event.key === 'Enter' || (event.key === 'Tab' && value !== '' && !event.shiftKey)) {
          event.preventDefault();
          take();
        } else if (event.key === 'Escape') event.currentTarget.value = '';
        else if (event.key.toLowerCase() === 'z' && (event.ctrlKey || event.metaKey) && value === '') {
          event.preventDefault();
          undo();
        }
      }}
      onInput={(event) => {
        const { value } = event.currentTarget;
        const now = event.timeStamp;
        if (value.length <= 1) burst.current.from = now;
        clearTimeout(burst.current.timer);
        const isFast = value.length >= leastSigns && now - burst.current.from < scannerMs * value.length;
        if (isFast && readScans(value).some((one) => one.is === 'code'))
          burst.current.timer = setTimeout(take, pauseMs);
      }}
    />
  );
});
