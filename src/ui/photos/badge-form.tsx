import { useEffect, useId, useRef, useState } from 'react';
import { type BadgeArt, type BadgeShape, badgeShapeLabels, badgeShapes } from '@/core/photo/layer';
import { keepFile } from '@/ui/data/upload';
import { badgeUrl, drawnBadge } from './addresses';

type Props = { art: BadgeArt | null; change: (art: BadgeArt) => void };

type Written = { words: string; shape: BadgeShape; ground: string; ink: string };

const begin: Written = { words: '', shape: 'pill', ground: '#155e52', ink: '#ffffff' };

/** A badge as it is drawn: words on a shape of ours in two colours, or a picture of one's own. */
export function BadgeForm({ art, change }: Props) {
  const [written, setWritten] = useState<Written>(art?.kind === 'words' ? art : begin);
  const [problem, setProblem] = useState('');
  const round = useRef(0);
  const id = useId();
  const write = (part: Partial<Written>) => {
    const next = { ...written, ...part };
    setWritten(next);
    setProblem('');
    const mine = ++round.current;
    const { words, shape, ground, ink } = next;
    if (!words.trim()) return;
    drawnBadge({ kind: 'words' as const, words: words.trim(), shape, ground, ink }).then(
      (drawn) => mine === round.current && change(drawn),
      (error: Error) => mine === round.current && setProblem(error.message),
    );
  };
  useEffect(() => () => void round.current++, []);
  const upload = async (file: File | undefined) => {
    if (!file) return;
    setProblem('');
    const answer = await keepFile<{ hash: string; ratio: number }>('/api/v1/badges/picture', file);
    if ('problem' in answer) return setProblem(answer.problem);
    const { hash, ratio } = answer.kept;
    change({ kind: 'picture', hash, colour: null, ratio });
  };
  return (
    <div className="space-y-2 text-[13px]">
      <div className="grid grid-cols-2 gap-2">
        <label className="col-span-2 flex flex-col gap-0.5">
          <span className="quiet text-[12px]">Words</span>
          <input
            className="input input-sm w-full"
            maxLength={24}
            placeholder="Ships tomorrow"
            value={written.words}
            onChange={(event) => write({ words: event.target.value })}
          />
        </label>
        <label className="flex flex-col gap-0.5">
          <span className="quiet text-[12px]">Shape</span>
          <select
            className="select select-sm w-full"
            value={written.shape}
            onChange={(event) => write({ shape: badgeShapes.find((one) => one === event.target.value) ?? 'pill' })}
          >
            {badgeShapes.map((shape) => (
              <option key={shape} value={shape}>
                {badgeShapeLabels[shape]}
              </option>
            ))}
          </select>
        </label>
        <div className="flex items-end gap-2">
          <label className="flex flex-1 flex-col gap-0.5">
            <span className="quiet text-[12px]">Ground</span>
            <input
              type="color"
              className="h-8 w-full rounded border border-base-300"
              value={written.ground}
              onChange={(event) => write({ ground: event.target.value })}
            />
          </label>
          <label className="flex flex-1 flex-col gap-0.5">
            <span className="quiet text-[12px]">Letters</span>
            <input
              type="color"
              className="h-8 w-full rounded border border-base-300"
              value={written.ink}
              onChange={(event) => write({ ink: event.target.value })}
            />
          </label>
        </div>
      </div>
      <label htmlFor={id} className="block">
        <span className="quiet text-[12px]">Or a picture of your own, PNG or SVG</span>
        <input
          id={id}
          type="file"
          accept=".png,.svg,image/png,image/svg+xml"
          className="file-input file-input-sm w-full"
          onChange={(event) => void upload(event.target.files?.[0])}
        />
      </label>
      {art?.kind === 'picture' ? (
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={art.colour !== null}
            onChange={(event) => change({ ...art, colour: event.target.checked ? '#155e52' : null })}
          />
          In one colour
          {art.colour === null ? null : (
            <input
              type="color"
              aria-label="Colour of the picture"
              className="h-7 w-14 rounded border border-base-300"
              value={art.colour}
              onChange={(event) => change({ ...art, colour: event.target.value })}
            />
          )}
        </label>
      ) : null}
      {problem ? (
        <p role="alert" className="text-error">
          {problem}
        </p>
      ) : null}
      {art ? (
        <div className="grid h-20 place-items-center rounded bg-base-200 p-2">
          <img src={badgeUrl(art)} alt="The badge as it is drawn" className="max-h-16 max-w-full" />
        </div>
      ) : null}
    </div>
  );
}
