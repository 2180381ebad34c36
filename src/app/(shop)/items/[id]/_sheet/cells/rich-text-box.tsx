'use client';

import { Bold, Italic, List, ListOrdered } from 'lucide-react';
import { type KeyboardEvent, useRef, useState } from 'react';
import type RichEditor from './rich-editor';

/** Called before the hand comes to it, the editor is there at once. */
export const importEditor = () => import('./rich-editor');

type Props = {
  value: string;
  label: string;
  change: (html: string) => void;
};

/** Rich text that is read as it is, and written with the editor as soon as it has the focus. */
export function RichTextBox(props: Props) {
  const [open, setOpen] = useState<{ Editor: typeof RichEditor; typed: string } | null>(null);
  /** What was typed while the editor was on its way: no letter is lost. */
  const typed = useRef('');
  const fetchEditor = async () => {
    const { default: Editor } = await importEditor();
    setOpen((now) => now ?? { Editor, typed: typed.current });
  };
  if (open) return <open.Editor {...props} isFocused typed={open.typed} />;
  const keep = (event: KeyboardEvent) => {
    if (event.key.length !== 1 || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    typed.current += event.key;
  };
  return (
    <div className="rich rounded border border-base-300" onPointerEnter={() => void importEditor()}>
      <div className="flex gap-0.5 border-b border-base-300 p-0.5" aria-hidden="true">
        {[Bold, Italic, List, ListOrdered].map((Icon) => (
          <button
            key={Icon.displayName}
            type="button"
            tabIndex={-1}
            className="btn btn-ghost btn-xs btn-square"
            onClick={() => void fetchEditor()}
          >
            <Icon size={13} />
          </button>
        ))}
      </div>
      <div
        role="textbox"
        aria-multiline="true"
        aria-label={props.label}
        tabIndex={0}
        dir="auto"
        className="max-h-64 min-h-24 cursor-text overflow-auto px-2 py-1"
        onFocus={() => void fetchEditor()}
        onKeyDown={keep}
        // Cleaned by the server to the editor’s small set of tags.
        dangerouslySetInnerHTML={{ __html: props.value }}
      />
    </div>
  );
}
