'use client';

import { useState } from 'react';
import { Dialog } from '@/ui/controls/dialog';
import { api, photoUrl } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

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
  const save = useCommand(
    async (said: string) => {
      await api('PUT /items/{id}/photos/flaw', { params: { id: itemId }, body: { hash, words: said } });
      await changed();
      close();
      return undefined;
    },
    { touches: [['sheet']] },
  );
  return (
    <Dialog title="What this photo shows" close={close}>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          void save.run(text);
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
        {save.problem ? (
          <p role="alert" className="text-error">
            {save.problem}
          </p>
        ) : null}
        <div className="flex gap-2">
          <button type="submit" className="btn btn-primary btn-sm">
            Keep
          </button>
          {words ? (
            <button type="button" className="btn btn-sm" onClick={() => void save.run('')}>
              It shows no flaw
            </button>
          ) : null}
        </div>
      </form>
    </Dialog>
  );
}
