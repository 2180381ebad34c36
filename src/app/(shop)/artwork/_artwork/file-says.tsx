'use client';

import type { ArtworkDetails } from '@/core/artwork/details';
import type { ArtworkView } from '@/services/artwork/find-artworks';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

/** Where a picture's file says otherwise than we do, or looks like another one: shown, and settled by hand. */
export function FileSays({ artwork: { itemId, differs, isBroken, twin, width, height } }: { artwork: ArtworkView }) {
  const fields = differs.map((one) => one.field as keyof ArtworkDetails); // the server names fields of the details
  const settle = useCommand(
    async (how: 'take' | 'leave') => {
      await api('PUT /artworks/{id}/details', { params: { id: itemId }, body: { [how]: fields } });
      return undefined;
    },
    { touches: [['artworks']], tells: true },
  );
  const decide = useCommand(
    async (how: 'take' | 'keep') => {
      await api('POST /artworks/{id}/twin', { params: { id: itemId }, body: { how } });
      return how === 'take' ? `“${twin?.title}” has this file now` : undefined;
    },
    { touches: [['artworks'], ['sights'], ['stages']], tells: true },
  );
  const small = 'btn btn-xs';
  return (
    <>
      {isBroken ? (
        <p className="text-[12px]">What the file says of itself cannot be read; it is left as it is.</p>
      ) : null}
      {differs.length ? (
        <div className="text-[12px]">
          <p>The file says otherwise:</p>
          <dl>
            {differs.map(({ field, ours, theirs }) => (
              <div key={field} title={ours ? `Here: ${ours}` : 'Here: nothing'} className="truncate">
                <dt className="quiet inline">{field}</dt> <dd className="inline">{theirs}</dd>
              </div>
            ))}
          </dl>
          <p className="mt-1 flex gap-2">
            <button type="button" className={small} disabled={settle.busy} onClick={() => void settle.run('take')}>
              Take it over
            </button>
            <button
              type="button"
              className={`${small} btn-ghost`}
              disabled={settle.busy}
              onClick={() => void settle.run('leave')}
            >
              Leave ours
            </button>
          </p>
        </div>
      ) : null}
      {twin ? (
        <div className="text-[12px]">
          <p>
            Looks like “{twin.title}”, {twin.width.toLocaleString('en')} × {twin.height.toLocaleString('en')}
            {width * height > twin.width * twin.height ? '; this one is larger' : ''}.
          </p>
          <p className="mt-1 flex gap-2">
            <button type="button" className={small} disabled={decide.busy} onClick={() => void decide.run('take')}>
              Put this file in its place
            </button>
            <button
              type="button"
              className={`${small} btn-ghost`}
              disabled={decide.busy}
              onClick={() => void decide.run('keep')}
            >
              It is another
            </button>
          </p>
        </div>
      ) : null}
    </>
  );
}
