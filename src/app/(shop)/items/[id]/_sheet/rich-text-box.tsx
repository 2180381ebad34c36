'use client';

import { Bold, Italic, List, ListOrdered } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useState } from 'react';

const importEditor = () => import('./rich-editor');
const RichEditor = dynamic(importEditor, { loading: () => <p className="quiet p-2">Loading the editor …</p> });

type Props = {
  value: string;
  label: string;
  change: (html: string) => void;
};

/** Fetches the editor before the hand comes to it. */
export const fetchEditor = (): void => void importEditor();

/** Rich text that is read as it is, and written with the editor as soon as it has the focus. */
export function RichTextBox(props: Props) {
  const [isOpen, setOpen] = useState(false);
  if (isOpen) return <RichEditor {...props} isFocused />;
  return (
    <div className="rich rounded border border-base-300" onPointerEnter={fetchEditor}>
      <div className="flex gap-0.5 border-b border-base-300 p-0.5" aria-hidden="true">
        {[Bold, Italic, List, ListOrdered].map((Icon) => (
          <button
            key={Icon.displayName}
            type="button"
            tabIndex={-1}
            className="btn btn-ghost btn-xs btn-square"
            onClick={() => setOpen(true)}
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
        onFocus={() => setOpen(true)}
        // Cleaned by the server to the editor’s small set of tags.
        dangerouslySetInnerHTML={{ __html: props.value }}
      />
    </div>
  );
}
