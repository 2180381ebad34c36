import { useQuery } from '@tanstack/react-query';
import { X } from 'lucide-react';
import { useRef, useState } from 'react';
import type { Layer, LayerPlace } from '@/core/photo/layer';
import type { PhotoRecipe } from '@/core/photo/recipe';
import { api } from '@/ui/data/api';
import { badgeUrl, drawnBadge } from '@/ui/photos/addresses';

type Props = {
  recipe: PhotoRecipe;
  change: (part: Partial<PhotoRecipe>) => void;
  placing: number | null;
  setPlacing: (layer: number | null) => void;
};

const corners = [
  ['top-left', 'top left'],
  ['top-right', 'top right'],
  ['bottom-left', 'bottom left'],
  ['bottom-right', 'bottom right'],
] as const;

const usual: LayerPlace = { anchor: 'top-left', dx: 40, dy: 40, size: 280 };

/** Badges on this picture: words of its own, or kept ones; each is moved on the result. */
export function Layers({ recipe, change, placing, setPlacing }: Props) {
  const { layers } = recipe;
  const badges = useQuery({ queryKey: ['badges'], queryFn: () => api('GET /badges') });
  const own = layers.find((one) => one.badge === null && one.art.kind === 'words');
  const [words, setWords] = useState(own?.art.kind === 'words' ? own.art.words : '');
  const [problem, setProblem] = useState('');
  const round = useRef(0);
  const put = (layer: Layer, before: Layer | undefined) =>
    change({ layers: before ? layers.map((one) => (one === before ? layer : one)) : [...layers, layer] });
  const write = (text: string) => {
    setWords(text);
    setProblem('');
    const mine = ++round.current;
    if (!text.trim()) return change({ layers: layers.filter((one) => one !== own) });
    drawnBadge({
      kind: 'words' as const,
      shape: 'box' as const,
      words: text.trim(),
      ground: '#22292c',
      ink: '#ffffff',
    }).then(
      (art) => mine === round.current && put({ badge: null, art, place: own?.place ?? usual }, own),
      (error: Error) => mine === round.current && setProblem(error.message),
    );
  };
  const nameOf = (layer: Layer) =>
    badges.data?.badges.find((one) => one.id === layer.badge)?.name ??
    (layer.art.kind === 'words' ? layer.art.words : 'Picture');
  return (
    <fieldset className="space-y-1.5">
      <legend className="font-medium">Badges</legend>
      <div className="flex gap-2">
        <input
          aria-label="Words of the badge"
          className="input input-sm min-w-0 flex-1"
          maxLength={24}
          placeholder="words, or none"
          value={words}
          onChange={(event) => write(event.target.value)}
        />
        <select
          aria-label="Corner of the badge"
          className="select select-sm w-32"
          disabled={!own}
          value={own?.place.anchor ?? 'top-left'}
          onChange={(event) => {
            const corner = corners.find(([id]) => id === event.target.value)?.[0];
            if (corner && own) put({ ...own, place: { ...usual, size: own.place.size, anchor: corner } }, own);
          }}
        >
          {own && !corners.some(([id]) => id === own.place.anchor) ? (
            <option value={own.place.anchor}>elsewhere</option>
          ) : null}
          {corners.map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </select>
      </div>
      {badges.data?.badges.length ? (
        <select
          aria-label="Put a kept badge on"
          className="select select-sm w-full"
          value=""
          disabled={layers.length >= 6}
          onChange={(event) => {
            const badge = badges.data.badges.find((one) => String(one.id) === event.target.value);
            if (badge)
              put(
                { badge: badge.id, art: badge.art, place: usual },
                layers.find((one) => one.badge === badge.id),
              );
          }}
        >
          <option value="">Put a kept badge on</option>
          {badges.data.badges.map((badge) => (
            <option key={badge.id} value={badge.id}>
              {badge.name}
            </option>
          ))}
        </select>
      ) : null}
      <ul className="space-y-1">
        {layers.map((layer, at) => (
          <li key={`${layer.badge}-${at}`} className="flex items-center gap-2">
            <img src={badgeUrl(layer.art, 160)} alt="" className="max-h-6 max-w-16" />
            <span className="min-w-0 flex-1 truncate">{nameOf(layer)}</span>
            <button
              type="button"
              className="btn btn-xs"
              aria-pressed={placing === at}
              onClick={() => setPlacing(placing === at ? null : at)}
            >
              {placing === at ? 'Done' : 'Move'}
            </button>
            <button
              type="button"
              className="btn btn-ghost btn-xs btn-square"
              aria-label={`Take ${nameOf(layer)} off`}
              onClick={() => {
                setPlacing(null);
                if (layer === own) setWords('');
                change({ layers: layers.filter((one) => one !== layer) });
              }}
            >
              <X size={13} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      {problem ? (
        <p role="alert" className="text-error">
          {problem}
        </p>
      ) : null}
    </fieldset>
  );
}
