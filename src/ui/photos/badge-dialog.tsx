'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { sameJson } from '@/core/json';
import type { BadgeArt, Layer, LayerPlace } from '@/core/photo/layer';
import type { Shot } from '@/services/changes/preview/preview-shots';
import { Dialog } from '@/ui/controls/dialog';
import { RemovedList } from '@/ui/controls/removed-list';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { bringBack } from '@/ui/data/bring-back';
import { counted } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';
import { badgeUrl, madeUrl } from './addresses';
import { BadgeForm } from './badge-form';
import { BadgePlacer } from './badge-placer';

type Props = {
  /** What is there already, to go on from. */
  layer: Layer | null;
  /** Photos on which it is placed. */
  models: { name: string; photo: Shot }[];
  keep: (layer: Layer) => void;
  close: () => void;
};

const usual: LayerPlace = { anchor: 'top-left', dx: 40, dy: 40, size: 300 };
const inputOf = ({ ratio: _ratio, ...art }: BadgeArt) => art;

/** Chooses a badge or makes one, and places it on a model; it is carried over to the others in proportion. */
export function BadgeDialog({ layer: before, models, keep, close }: Props) {
  const badges = useQuery({ queryKey: ['badges'], queryFn: () => api('GET /badges') });
  const [badge, setBadge] = useState<number | null>(before?.badge ?? null);
  const [art, setArt] = useState<BadgeArt | null>(before?.art ?? null);
  const [place, setPlace] = useState<LayerPlace>(before?.place ?? usual);
  const [name, setName] = useState('');
  const [at, setAt] = useState(0);
  const kept = badges.data?.badges.find((one) => one.id === badge);
  const isChanged = kept !== undefined && art !== null && !sameJson(kept.art, art);
  const save = useCommand(
    async (id: number | undefined) => {
      if (!art) return undefined;
      const answer = await api('PUT /badges', {
        body: { id, name: (id ? kept?.name : name) ?? name, art: inputOf(art) },
      });
      setBadge(answer.id);
      setName('');
      return answer.changing ? `${counted(answer.changing, 'item')} that carry it are being changed` : undefined;
    },
    { touches: [['badges']] },
  );
  const remove = useCommand(
    async (id: number) => {
      await api('DELETE /badges/{id}', { params: { id } });
      setBadge(null);
      return {
        text: 'It is kept no longer; photos that carry it stay as they are',
        back: () => bringBack('badge', id),
      };
    },
    { touches: [['badges'], ['removed']] },
  );
  const model = models[at % Math.max(1, models.length)];
  const layer: Layer | null = art ? { badge, art, place } : null;
  const without = model && {
    ...model.photo.recipe,
    layers: model.photo.recipe.layers.filter((one) => one.badge !== badge || badge === null),
  };
  return (
    <Dialog title="A badge, placed once" close={close} wide>
      <div className="grid grid-cols-[19rem_1fr] gap-5 max-md:grid-cols-1">
        <div className="space-y-3">
          <h3 className="font-semibold">Kept badges</h3>
          {badges.isPending ? <Loading what="the badges" /> : null}
          {badges.isError ? <Failed error={badges.error} retry={() => void badges.refetch()} /> : null}
          {badges.data?.badges.length === 0 ? (
            <p className="quiet text-[13px]">
              None yet. Make one below; kept under a name it can be changed everywhere at once.
            </p>
          ) : null}
          <ul className="flex max-h-36 flex-wrap gap-1.5 overflow-auto">
            {badges.data?.badges.map((one) => (
              <li key={one.id}>
                <button
                  type="button"
                  aria-pressed={one.id === badge}
                  aria-label={`Badge ${one.name}`}
                  title={one.name}
                  className={`grid h-11 max-w-32 place-items-center rounded border-2 bg-base-200 px-1.5 ${one.id === badge ? 'border-primary' : 'border-transparent'}`}
                  onClick={() => {
                    setBadge(one.id);
                    setArt(one.art);
                  }}
                >
                  <img src={badgeUrl(one.art, 240)} alt="" className="max-h-8 max-w-28" />
                </button>
              </li>
            ))}
          </ul>
          <RemovedList kind="badge" />
          <h3 className="font-semibold">{kept ? `How ${kept.name} is drawn` : 'Make one'}</h3>
          <BadgeForm key={badge ?? 0} art={art} change={setArt} />
          {kept && !isChanged ? (
            <button
              type="button"
              className="btn btn-ghost btn-xs"
              disabled={remove.busy}
              onClick={() => void remove.run(kept.id)}
            >
              Keep {kept.name} no longer
            </button>
          ) : null}
          {isChanged && kept ? (
            <div className="space-y-1 rounded border border-base-300 p-2 text-[13px]">
              <p>Drawn otherwise than it is kept.</p>
              <button type="button" className="btn btn-xs" disabled={save.busy} onClick={() => void save.run(kept.id)}>
                Change it on all photos that carry it
              </button>{' '}
              <button type="button" className="btn btn-ghost btn-xs" onClick={() => setBadge(null)}>
                Make it another badge
              </button>
            </div>
          ) : null}
          {art && badge === null ? (
            <div className="flex items-end gap-2">
              <label className="flex flex-1 flex-col gap-0.5">
                <span className="quiet text-[12px]">Keep it as</span>
                <input
                  className="input input-sm"
                  maxLength={60}
                  value={name}
                  placeholder="Ships tomorrow"
                  onChange={(event) => setName(event.target.value)}
                />
              </label>
              <button
                type="button"
                className="btn btn-sm"
                disabled={!name.trim() || save.busy}
                onClick={() => void save.run(undefined)}
              >
                Keep the badge
              </button>
            </div>
          ) : null}
          {save.problem ? (
            <p role="alert" className="text-error">
              {save.problem}
            </p>
          ) : null}
        </div>
        <div className="space-y-2">
          <h3 className="font-semibold">Where it goes</h3>
          {model && without && layer ? (
            <>
              <BadgePlacer
                picture={madeUrl(model.photo.original, without, 640)}
                width={model.photo.width}
                height={model.photo.height}
                layer={layer}
                place={setPlace}
              />
              {models.length > 1 ? (
                <button type="button" className="btn btn-ghost btn-xs" onClick={() => setAt(at + 1)}>
                  {model.name}; try another item
                </button>
              ) : null}
            </>
          ) : (
            <p className="quiet grid h-72 place-items-center rounded bg-base-200 p-4 text-center">
              {models.length
                ? 'The first photo of an item, with the badge on it, will stand here.'
                : 'None of these items has a photo.'}
            </p>
          )}
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={!layer || isChanged}
            onClick={() => layer && keep(layer)}
          >
            Put it there
          </button>
        </div>
      </div>
    </Dialog>
  );
}
