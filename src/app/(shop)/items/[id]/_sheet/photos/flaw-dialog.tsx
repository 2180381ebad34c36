'use client';

import { useState } from 'react';
import { api, photoUrl } from '@/ui/api';
import { Dialog } from '@/ui/dialog';

type Props = {
  itemId: number;
  hash: string;
  words: string;
  close: () => void;
  changed: () => Promise<unknown>;
};

/** What a photo of a flaw shows, in a few words that can go into the condition note. */
export function FlawDialog({ itemId, hash, words, close, changed }: Props) {
  const [text, setText] = useState(words);
  const [problem, setProblem] = useState('');
  const save = async (said: string) => {
    try {
      await api(`/items/${itemId}/photos/flaw`, { method: 'PUT', body: { hash, words: said } });
      await changed();
      close();
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'Not saved');
    }
  };
  return (
    <Dialog title="What this photo shows" close={close}>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          void save(text);
        }}
      >
        <img src={photoUrl(hash, 'view')} alt="" className="max-h-64 rounded" />
        <label className="block">
          The flaw, in a few words
          <input
            data-first
            className="input input-sm mt-1 w-full"
            maxLength={200}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
        </label>
        {problem ? (
          <p role="alert" className="text-error">
            {problem}
          </p>
        ) : null}
        <div className="flex gap-2">
          <button type="submit" className="btn btn-primary btn-sm">
            Keep
          </button>
          {words ? (
            <button type="button" className="btn btn-sm" onClick={() => void save('')}>
              It shows no flaw
            </button>
          ) : null}
        </div>
      </form>
    </Dialog>
  );
}
