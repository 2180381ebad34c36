'use client';

import { Camera, Images } from 'lucide-react';
import { useRef, useState } from 'react';
import { uploadPhoto } from '@/ui/data/upload';

type Sent = { key: number; url: string; state: 'sending' | 'there' | 'refused'; problem?: string; file: File };

/** Large buttons for one hand: take a picture, or choose several; each shows whether it has arrived. */
export function PhoneCamera({ code, title }: { code: string; title: string }) {
  const [sent, setSent] = useState<Sent[]>([]);
  const next = useRef(1);
  const queue = useRef<Promise<void>>(Promise.resolve());
  const send = (one: Sent) => {
    const set = (part: Partial<Sent>) =>
      setSent((all) => all.map((other) => (other.key === one.key ? { ...other, ...part } : other)));
    set({ state: 'sending', problem: undefined });
    // One after the other: they keep their order, and the phone keeps its breath.
    queue.current = queue.current.then(async () => {
      const problem = await uploadPhoto(`/api/phone/${code}`, one.file, one.file.name);
      set(problem ? { state: 'refused', problem } : { state: 'there' });
    });
  };
  const add = (files: FileList | null) => {
    for (const file of files ?? []) {
      const one: Sent = { key: next.current++, url: URL.createObjectURL(file), state: 'sending', file };
      setSent((all) => [one, ...all]);
      send(one);
    }
  };
  const there = sent.filter((one) => one.state === 'there').length;
  return (
    <main className="mx-auto flex min-h-dvh max-w-md flex-col gap-4 p-4">
      <h1 className="text-lg font-semibold wrap-anywhere">{title || 'New item'}</h1>
      <label className="btn btn-primary h-24 w-full cursor-pointer text-lg focus-within:outline-2">
        <Camera size={28} aria-hidden="true" /> Take a photo
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="sr-only"
          onChange={(event) => {
            add(event.target.files);
            event.target.value = '';
          }}
        />
      </label>
      <label className="btn h-14 w-full cursor-pointer focus-within:outline-2">
        <Images size={20} aria-hidden="true" /> Choose from the phone
        <input
          type="file"
          accept="image/*"
          multiple
          className="sr-only"
          onChange={(event) => {
            add(event.target.files);
            event.target.value = '';
          }}
        />
      </label>
      <p role="status">
        {sent.length === 0
          ? 'Each picture stands on the item’s sheet at once.'
          : `${there} of ${sent.length} on the sheet`}
      </p>
      <ul className="grid grid-cols-3 gap-2">
        {sent.map((one) => (
          <li key={one.key} className="text-[12px]">
            <img
              src={one.url}
              alt=""
              className={`aspect-square w-full rounded object-cover ${one.state === 'there' ? '' : 'opacity-50'}`}
            />
            {one.state === 'there' ? 'On the sheet' : one.state === 'sending' ? 'Being sent …' : null}
            {one.state === 'refused' ? (
              <span role="alert" className="text-error">
                {one.problem}{' '}
                <button type="button" className="underline" onClick={() => send(one)}>
                  Send again
                </button>
              </span>
            ) : null}
          </li>
        ))}
      </ul>
    </main>
  );
}
