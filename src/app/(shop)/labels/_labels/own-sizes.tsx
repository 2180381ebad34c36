'use client';

import type { LabelSize } from '@/core/label/size';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

type Props = {
  size: string;
  /** The chosen one, where it is one's own. */
  own: LabelSize | undefined;
  /** Chooses one; the usual size when none is named. */
  choose: (id?: string) => void;
  /** Opens what makes another one: a form of its own, so not within this one. */
  add: () => void;
};

/** Sizes of labels of one's own: another one is made, the chosen one removed. */
export function OwnSizes({ size, own, choose, add }: Props) {
  const remove = useCommand(
    async (gone: LabelSize) => {
      // What others have added meanwhile stays.
      const { labelSizes } = await api('GET /settings');
      const { [size]: _gone, ...others } = labelSizes;
      await api('PUT /settings', { body: { labelSizes: others } });
      choose();
      return {
        text: `${gone.name} is removed`,
        back: async () => {
          const now = (await api('GET /settings')).labelSizes;
          await api('PUT /settings', { body: { labelSizes: { ...now, [size]: gone } } });
          choose(size);
        },
      };
    },
    { touches: [['settings']], tells: true },
  );
  return (
    <div className="flex flex-wrap gap-1">
      <button type="button" className="btn btn-ghost btn-xs" onClick={add}>
        Add a size of your own
      </button>
      {own ? (
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          disabled={remove.busy}
          onClick={() => void remove.run(own)}
        >
          Remove this one
        </button>
      ) : null}
    </div>
  );
}
