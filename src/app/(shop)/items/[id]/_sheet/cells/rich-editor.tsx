'use client';

import { EditorContent, useEditor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { Bold, Italic, List, ListOrdered } from 'lucide-react';

/** Rich text with the few tags that marketplaces take. */
export default function RichEditor({
  value,
  label,
  change,
  isFocused = false,
  typed = '',
}: {
  value: string;
  label: string;
  change: (html: string) => void;
  /** It takes the focus when it is there. */
  isFocused?: boolean;
  /** What was typed before it was there. */
  typed?: string;
}) {
  const editor = useEditor({
    // One that takes the focus is made in the browser only, at once.
    immediatelyRender: isFocused,
    extensions: [
      StarterKit.configure({
        code: false,
        codeBlock: false,
        blockquote: false,
        horizontalRule: false,
        strike: false,
        heading: { levels: [2, 3] },
      }),
    ],
    content: value,
    autofocus: isFocused ? 'start' : false,
    onCreate: ({ editor: made }) => void (typed && made.commands.insertContentAt(1, typed)),
    editorProps: {
      attributes: {
        'aria-label': label,
        role: 'textbox',
        'aria-multiline': 'true',
        dir: 'auto',
        class: 'min-h-24 px-2 py-1',
      },
    },
    onUpdate: ({ editor: now }) => change(now.isEmpty ? '' : now.getHTML()),
  });
  if (!editor) return <p className="quiet p-2">Loading the editor …</p>;
  // The keys for these are the usual ones (Ctrl+B, Ctrl+I); Tab goes on to the next field.
  const button = (name: string, active: boolean, run: () => void, icon: React.ReactNode) => (
    <button
      type="button"
      tabIndex={-1}
      className={`btn btn-ghost btn-xs btn-square ${active ? 'bg-base-300' : ''}`}
      aria-label={name}
      aria-pressed={active}
      onClick={run}
    >
      {icon}
    </button>
  );
  return (
    <div className="rich rounded border border-base-300">
      <div className="flex gap-0.5 border-b border-base-300 p-0.5">
        {button('Bold', editor.isActive('bold'), () => editor.chain().focus().toggleBold().run(), <Bold size={13} />)}
        {button(
          'Italic',
          editor.isActive('italic'),
          () => editor.chain().focus().toggleItalic().run(),
          <Italic size={13} />,
        )}
        {button(
          'List',
          editor.isActive('bulletList'),
          () => editor.chain().focus().toggleBulletList().run(),
          <List size={13} />,
        )}
        {button(
          'Numbered list',
          editor.isActive('orderedList'),
          () => editor.chain().focus().toggleOrderedList().run(),
          <ListOrdered size={13} />,
        )}
      </div>
      <EditorContent editor={editor} className="max-h-64 overflow-auto" />
    </div>
  );
}
