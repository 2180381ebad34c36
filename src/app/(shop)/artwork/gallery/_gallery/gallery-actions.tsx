import type { Verdict } from '@/core/artwork/stands';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';
import type { Sight } from './sights';

type Props = {
  all: readonly Sight[];
  verdictOf: (sight: Sight) => Verdict | null;
  say: (sights: readonly Sight[], verdict: Verdict | null) => void;
  /** How much of what was said is on its way. */
  open: number;
};

/** How far the looking over has come, and what is done for all at once. */
export function GalleryActions({ all, verdictOf, say, open }: Props) {
  const prints = useCommand(
    async () => {
      const { artworks } = await api('POST /artworks/prints', {});
      return `The printables of ${counted(artworks, 'picture')} are being made`;
    },
    { touches: [['tasks']], tells: true },
  );
  const looked = all.filter((one) => verdictOf(one) !== null).length;
  const plain = all.filter((one) => verdictOf(one) === null && one.isOffered && one.fault === '');
  return (
    <>
      <span className="figures text-[13px]" role="status">
        {looked.toLocaleString('en')} of {all.length.toLocaleString('en')} looked over
        {open ? `, ${open.toLocaleString('en')} on the way` : ''}
      </span>
      <button type="button" className="btn btn-sm ml-auto" disabled={prints.busy} onClick={() => void prints.run()}>
        Make the printables
      </button>
      <button type="button" className="btn btn-sm" disabled={plain.length === 0} onClick={() => say(plain, 'good')}>
        Call {plain.length.toLocaleString('en')} with nothing wrong good
      </button>
    </>
  );
}
