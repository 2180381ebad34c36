'use client';

import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import Cropper, { type Area } from 'react-easy-crop';
import { madeSize, type PhotoRecipe, plainRecipe } from '@/core/photo/recipe';
import type { PhotoMade } from '@/services/photos/photo-recipe';
import { Dialog } from '@/ui/controls/dialog';
import { Failed, Loading } from '@/ui/controls/states';
import { api, photoUrl } from '@/ui/data/api';
import { madeUrl } from '@/ui/photos/addresses';
import { BadgePlacer } from '@/ui/photos/badge-placer';
import { Controls } from './controls';

type Props = {
  itemId: number;
  hash: string;
  place: number;
  count: number;
  go: (place: number) => void;
  close: () => void;
  changed: () => Promise<unknown>;
};

/** One photo on the desk: turned, cropped, lit, its backdrop cleaned, a badge put on. The original stays. */
export function PhotoDesk(props: Props) {
  const { hash, place, count, go, close } = props;
  const { data, isPending, isError, error, refetch } = useQuery({
    queryKey: ['desk', hash],
    queryFn: () => api('GET /photos/recipe', { query: { hash } }),
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 0,
  });
  return (
    <Dialog title={`Photo ${place + 1} of ${count}`} close={close} wide>
      {isPending ? <Loading what="the photo" /> : null}
      {isError ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data ? <Desk key={hash} {...props} source={data} /> : null}
      <div className="mt-3 flex gap-2">
        <button type="button" className="btn btn-sm" disabled={place === 0} onClick={() => go(place - 1)}>
          Photo before
        </button>
        <button type="button" className="btn btn-sm" disabled={place >= count - 1} onClick={() => go(place + 1)}>
          Next photo
        </button>
      </div>
    </Dialog>
  );
}

const ratios: Record<string, number> = { square: 1, portrait: 4 / 5 };

function Desk({ itemId, place, hash, source, close, changed }: Props & { source: PhotoMade }) {
  const [recipe, setRecipe] = useState(source.recipe);
  const [quarters, setQuarters] = useState(() => (Math.round(source.recipe.turn / 90) + 4) % 4);
  const [straighten, setStraighten] = useState(() => source.recipe.turn - Math.round(source.recipe.turn / 90) * 90);
  const [shape, setShape] = useState(source.recipe.crop ? 'free' : 'whole');
  const [ratio, setRatio] = useState(1.25);
  const [at, setAt] = useState({ x: 0, y: 0 });
  const [zoom, setZoom] = useState(1);
  const [shown, setShown] = useState<string | null>(null);
  const [twice, setTwice] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  /** The badge that is being placed. */
  const [placing, setPlacing] = useState<number | null>(null);
  const round = useRef(0);
  const small = photoUrl(source.original, 'market');

  const change = useCallback((part: Partial<PhotoRecipe>) => setRecipe((now) => ({ ...now, ...part })), []);
  const turn = (quarter: number, degrees: number) => {
    setQuarters(quarter);
    setStraighten(degrees);
    change({ turn: (((quarter + 1) % 4) - 1) * 90 + degrees, ...(shape === 'whole' ? { crop: null } : {}) });
  };
  const cropped = useCallback(
    (area: Area) => {
      if (shape === 'whole') return;
      const part = (value: number) => Math.max(0, Math.min(1, value / 100));
      change({
        crop: {
          x: part(area.x),
          y: part(area.y),
          width: Math.max(0.01, part(area.width)),
          height: Math.max(0.01, part(area.height)),
        },
      });
    },
    [change, shape],
  );

  // The result, small, made by the server; of several only the last one counts.
  const layer = placing === null ? undefined : recipe.layers[placing];
  const seen = layer ? { ...recipe, layers: recipe.layers.filter((one) => one !== layer) } : recipe;
  const wanted = madeUrl(source.original, seen, 640);
  useEffect(() => {
    const mine = ++round.current;
    const timer = setTimeout(() => {
      const image = new Image();
      image.src = wanted;
      image.decode().then(
        () => mine === round.current && setShown(wanted),
        () => mine === round.current && setProblem('The result could not be made'),
      );
    }, 120);
    return () => clearTimeout(timer);
  }, [wanted]);

  const keep = async () => {
    setBusy(true);
    setProblem('');
    try {
      await api('POST /items/{id}/photos/made', { params: { id: itemId }, body: { hash, place, recipe, twice } });
      await changed();
      close();
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'Not kept');
      setBusy(false);
    }
  };

  return (
    <div className="grid grid-cols-[1fr_1fr_20rem] gap-4">
      <div>
        <h3 className="quiet mb-1">The original; drag and zoom to crop</h3>
        <div className="relative h-[26rem] rounded bg-base-200">
          {shape === 'whole' ? (
            <img
              src={small}
              alt="The original"
              className="h-full w-full object-contain"
              style={{ transform: `rotate(${recipe.turn}deg)` }}
            />
          ) : (
            <Cropper
              image={small}
              crop={at}
              zoom={zoom}
              rotation={recipe.turn}
              aspect={ratios[shape] ?? ratio}
              onCropChange={setAt}
              onZoomChange={setZoom}
              onCropComplete={cropped}
              zoomSpeed={0.3}
            />
          )}
        </div>
        {shape === 'whole' ? null : (
          <label className="mt-1 flex items-center gap-2">
            Zoom
            <input
              type="range"
              className="range range-xs flex-1"
              min={1}
              max={4}
              step={0.05}
              value={zoom}
              onChange={(event) => setZoom(Number(event.target.value))}
            />
          </label>
        )}
      </div>
      <div>
        <h3 className="quiet mb-1">The result</h3>
        <div className="grid h-[26rem] place-items-center rounded bg-base-200">
          {shown && layer ? (
            <BadgePlacer
              picture={shown}
              {...madeSize(source.from.width, source.from.height, recipe)}
              layer={layer}
              place={(at) =>
                change({ layers: recipe.layers.map((one) => (one === layer ? { ...one, place: at } : one)) })
              }
              side={320}
            />
          ) : shown ? (
            <img src={shown} alt="The result" data-testid="result" className="max-h-[26rem] max-w-full" />
          ) : (
            <p className="quiet">Being made …</p>
          )}
        </div>
      </div>
      <div className="flex flex-col">
        <Controls
          recipe={recipe}
          change={change}
          quarters={quarters}
          straighten={straighten}
          turn={turn}
          shape={shape}
          setShape={(next) => {
            setShape(next);
            if (next === 'whole') change({ crop: null });
          }}
          ratio={ratio}
          setRatio={setRatio}
          balance={source.balance}
          byItself={source.byItself}
          placing={placing}
          setPlacing={setPlacing}
        />
        <label className="mt-4 flex items-center gap-2 text-[13px]">
          <input
            type="checkbox"
            className="checkbox checkbox-xs"
            checked={twice}
            onChange={(event) => setTwice(event.target.checked)}
          />
          Keep the untouched one, too, at the end
        </label>
        {problem ? (
          <p role="alert" className="mt-2 text-error">
            {problem}
          </p>
        ) : null}
        <div className="mt-4 flex gap-2">
          <button type="button" className="btn btn-primary btn-sm" disabled={busy} onClick={() => void keep()}>
            {busy ? 'Being made …' : 'Keep the result'}
          </button>
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => {
              setRecipe(plainRecipe);
              setShape('whole');
              setQuarters(0);
              setStraighten(0);
            }}
          >
            Back to the original
          </button>
        </div>
      </div>
    </div>
  );
}
