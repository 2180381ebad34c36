'use client';

import dynamic from 'next/dynamic';
import { type ReactNode, useLayoutEffect, useRef, useState } from 'react';
import type { Choice } from '@/core/field/kind';
import type { Item } from '@/core/item/item';
import type { Json } from '@/core/json';
import { readPhotoReference } from '@/core/photo/reference';
import type { SheetColumn, SheetField } from '@/services/items/item-sheet';
import { Chips } from '@/ui/controls/chips';
import { SearchList } from '@/ui/controls/search-list';
import { sentenceOf } from '@/ui/data/sentence';
import { NarrowVariations } from '../columns/narrow-variations';
import { readTyped, written } from '../shown';
import { PhotoChoice } from './photo-choice';

const RichEditor = dynamic(() => import('./rich-editor'), {
  loading: () => <p className="quiet p-2">Loading the editor …</p>,
});

type Props = {
  item: Item;
  column: SheetColumn;
  field: SheetField;
  anchor: DOMRect;
  write: (value: Json | undefined) => Promise<void>;
  close: () => void;
};

/** Where the editor stands: at its cell, wide enough to write in, inside the window. */
function place(anchor: DOMRect, height: number): React.CSSProperties {
  const width = Math.min(460, window.innerWidth - 24);
  return {
    width,
    left: Math.max(12, Math.min(anchor.left, window.innerWidth - width - 12)),
    top: Math.max(56, Math.min(anchor.top, window.innerHeight - height - 52)),
  };
}

/** The real editor of one marketplace's value: text with its limit, a list that is searched, chips, dates, photos. */
export function CellEditor(props: Props) {
  const { field, column, anchor, write, close } = props;
  const box = useRef<HTMLDivElement>(null);
  const [style, setStyle] = useState<React.CSSProperties>(() => place(anchor, 200));
  const [problem, setProblem] = useState('');
  useLayoutEffect(() => {
    const fit = () => setStyle(place(anchor, box.current?.offsetHeight ?? 200));
    fit();
    const watch = new ResizeObserver(fit);
    if (box.current) watch.observe(box.current);
    return () => watch.disconnect();
  }, [anchor]);
  /** What was typed or chosen and is not saved yet; null while nothing was. */
  const pending = useRef<Pending | null>(null);
  const isOver = useRef(false);
  const end = () => {
    isOver.current = true;
    close();
  };
  const save = async (value: Json | undefined) => {
    // Kept as it was it goes on following what it follows.
    if (value !== undefined && isSame(value, field)) return end();
    isOver.current = true;
    try {
      await write(value);
      close();
    } catch (error) {
      isOver.current = false;
      setProblem(sentenceOf(error));
    }
  };
  /** Left for another cell: what was typed is saved, as in the item's own column. */
  const leave = () => {
    const typed = pending.current?.() ?? null;
    if (typed === null) end();
    else if ('problem' in typed) setProblem(typed.problem);
    else void save(typed.value);
  };
  return (
    <div
      ref={box}
      role="dialog"
      aria-label={`${field.label} on ${column.name}`}
      style={style}
      className="fixed z-30 max-h-[80vh] overflow-auto rounded border border-base-300 bg-base-100 p-3 shadow-xl"
      onKeyDown={(event) => {
        if (event.key !== 'Escape') return;
        event.stopPropagation();
        end();
      }}
      onBlur={(event) => {
        const to = event.relatedTarget;
        // Another window is no other place: one comes back and goes on.
        if (isOver.current || !document.hasFocus() || (to instanceof Node && event.currentTarget.contains(to))) return;
        if (to !== null || !box.current?.matches(':hover')) leave();
      }}
    >
      <p className="mb-2 flex items-baseline gap-2">
        <b className="font-medium">{field.label}</b> <span className="quiet">on {column.name}</span>
      </p>
      <Editor
        {...props}
        close={end}
        save={save}
        setProblem={setProblem}
        pending={(read) => {
          pending.current = read;
        }}
      />
      {problem ? (
        <p role="alert" className="mt-1 text-error">
          {problem}
        </p>
      ) : null}
    </div>
  );
}

type Pending = () => { value: Json | undefined } | { problem: string };
type EditorProps = Props & {
  save: (value: Json | undefined) => Promise<void>;
  setProblem: (text: string) => void;
  /** Tells how to read what would be saved when the cell is left. */
  pending: (read: Pending) => void;
};

/** Whether a cell would hold just what it holds: photos are the same in whatever shape they are sent. */
function isSame(value: Json, { kind, value: now }: SheetField): boolean {
  const plain = (one: Json) =>
    kind.is === 'photos' && Array.isArray(one) ? one.map((photo) => readPhotoReference(String(photo)).hash) : one;
  return JSON.stringify(plain(value)) === JSON.stringify(plain(now));
}

function Editor(props: EditorProps) {
  const { field, column, item, save } = props;
  const list = Array.isArray(field.value) ? field.value.map(String) : [];
  const { kind } = field;
  switch (kind.is) {
    case 'choice':
      return (
        <>
          <SearchList
            label={`${field.label} on ${column.name}`}
            choices={kind.choices}
            chosen={[String(field.value)]}
            choose={(id) => void save(id)}
          />
          <Foot {...props} />
        </>
      );
    case 'boolean':
      return (
        <div className="flex gap-2">
          {[true, false].map((value) => (
            <button
              key={String(value)}
              type="button"
              // biome-ignore lint/a11y/noAutofocus: opened by the person who is going to choose
              autoFocus={field.value === value}
              className="btn btn-sm"
              aria-pressed={field.value === value}
              onClick={() => void save(value)}
            >
              {value ? 'Yes' : 'No'}
            </button>
          ))}
          <Foot {...props} />
        </div>
      );
    case 'list':
      return kind.choices ? (
        <Several {...props} choices={kind.choices} first={list} />
      ) : (
        <Words {...props} first={list} />
      );
    case 'photos':
      return (
        <PhotoChoice
          {...props}
          photos={item.photos}
          first={list}
          pending={(value) => props.pending(() => ({ value }))}
        />
      );
    case 'clip':
      return (
        <Foot {...props}>
          <button type="button" className="btn btn-sm" onClick={() => void save('')}>
            No clip on {column.name}
          </button>
        </Foot>
      );
    case 'map':
      return <NarrowVariations {...props} pending={(value) => props.pending(() => ({ value }))} />;
    case 'rich':
      return <Rich {...props} />;
    default:
      return <Text {...props} />;
  }
}

function Foot({ field, save, close, children }: EditorProps & { children?: ReactNode }) {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-2">
      {children}
      {field.origin === 'override' ? (
        <button type="button" className="btn btn-sm" onClick={() => void save(undefined)}>
          Follow the item again
        </button>
      ) : null}
      <button type="button" className="btn btn-ghost btn-sm" onClick={close}>
        Cancel
      </button>
    </div>
  );
}

function Text(props: EditorProps) {
  const { field, column, save, setProblem, pending } = props;
  const [text, setText] = useState(() => written(field, column));
  const type = (typed: string) => {
    setText(typed);
    setProblem('');
    pending(() => readTyped(field, column, typed));
  };
  const long = field.kind.is === 'text' && field.kind.lines === true;
  const wide = long || field.field === 'title';
  const send = () => {
    const read = readTyped(field, column, text);
    if ('problem' in read) setProblem(read.problem);
    else void save(read.value);
  };
  const shared = {
    'aria-label': `${field.label} on ${column.name}`,
    autoFocus: true,
    value: text,
    dir: 'auto' as const,
    onKeyDown: (event: React.KeyboardEvent) => {
      if (event.key !== 'Enter' || (long && !event.ctrlKey)) return;
      event.preventDefault();
      send();
    },
  };
  const length = [...text].length;
  return (
    <>
      {wide ? (
        <textarea
          {...shared}
          rows={long ? 8 : 3}
          className="textarea textarea-sm w-full"
          onChange={(event) => type(long ? event.target.value : event.target.value.replace(/\n/g, ' '))}
        />
      ) : (
        <input
          {...shared}
          type={field.kind.is === 'date' ? 'date' : 'text'}
          className="input input-sm w-full"
          onChange={(event) => type(event.target.value)}
        />
      )}
      <Foot {...props}>
        <button type="button" className="btn btn-primary btn-sm" onClick={send}>
          Keep for {column.name}
        </button>
        {field.max !== undefined && wide ? (
          <span className={`figures text-[12px] ${length > field.max ? 'text-error' : 'quiet'}`}>
            {length}/{field.max}
          </span>
        ) : null}
      </Foot>
    </>
  );
}

function Rich(props: EditorProps) {
  const { field, column, save, pending } = props;
  const [html, setHtml] = useState(String(field.value ?? ''));
  return (
    <>
      <RichEditor
        label={`${field.label} on ${column.name}`}
        value={html}
        isFocused
        change={(typed) => {
          setHtml(typed);
          pending(() => ({ value: typed }));
        }}
      />
      <Foot {...props}>
        <button type="button" className="btn btn-primary btn-sm" onClick={() => void save(html)}>
          Keep for {column.name}
        </button>
      </Foot>
    </>
  );
}

function Words(props: EditorProps & { first: string[] }) {
  const { field, column, save, first, pending } = props;
  const [words, setWords] = useState(first);
  const change = (next: string[]) => {
    setWords(next);
    pending(() => ({ value: next }));
  };
  return (
    <>
      <Chips
        label={`${field.label} on ${column.name}`}
        values={words}
        change={change}
        max={field.max}
        autoFocus
        onDone={() => void save(words)}
      />
      <Foot {...props}>
        <button type="button" className="btn btn-primary btn-sm" onClick={() => void save(words)}>
          Keep for {column.name}
        </button>
      </Foot>
    </>
  );
}

function Several(props: EditorProps & { first: string[]; choices: readonly Choice[] }) {
  const { field, column, save, first, choices, pending } = props;
  const [chosen, setChosen] = useState(first);
  const choose = (next: string[]) => {
    setChosen(next);
    pending(() => ({ value: next }));
  };
  return (
    <>
      <SearchList
        label={`${field.label} on ${column.name}`}
        choices={choices}
        chosen={chosen}
        choose={(id) => choose(chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id])}
      />
      <Foot {...props}>
        <button type="button" className="btn btn-primary btn-sm" onClick={() => void save(chosen)}>
          Keep {chosen.length} for {column.name}
        </button>
      </Foot>
    </>
  );
}
