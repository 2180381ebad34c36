'use client';

import { useQuery } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import Cropper, { type Area } from 'react-easy-crop';
import { type PhotoRecipe, photoRecipeSchema, plainRecipe } from '@/core/photo/recipe';
import { Dialog } from '@/ui/controls/dialog';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { uploadPhoto } from '@/ui/data/upload';
import { Controls } from './controls';
import { useDeskWorker } from './use-desk-worker';

type Props = {
  itemId: number;
  hash: string;
  place: number;
  count: number;
  go: (place: number) => void;
  close: () => void;
  changed: () => Promise<unknown>;
  /** Puts the original back into this place. */
  restore: (original: string) => Promise<unknown>;
  /** Puts the untouched original behind the others. */
  append: (original: string) => Promise<unknown>;
};

type Source = { original: string; recipe: PhotoRecipe; whole: Blob; small: Blob };

async function picture(hash: string, size: 'original' | 'market'): Promise<Blob> {
  const answer = await fetch(`/api/photos/${hash}-${size}`);
  if (!answer.ok) throw new Error('The photo could not be read');
  return answer.blob();
}

/** The original that a photo was made from, and how: work goes on from there, never from a result. */
async function sourceOf(hash: string): Promise<Source> {
  const { original, recipe } = await api('GET /photos/recipe', { query: { hash } });
  const read = photoRecipeSchema.safeParse(recipe);
  const [whole, small] = await Promise.all([picture(original, 'original'), picture(original, 'market')]);
  return { original, recipe: read.success ? read.data : plainRecipe, whole, small };
}

/** One photo on the desk: turned, cropped, lit, its backdrop cleaned, a badge put on. The original stays. */
export function PhotoDesk(props: Props) {
  const { hash, place, count, go, close } = props;
  const { data, isPending, isError, error, refetch } = useQuery({
    queryKey: ['desk', hash],
    queryFn: () => sourceOf(hash),
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

function Desk({ itemId, place, hash, source, close, changed, restore, append }: Props & { source: Source }) {
  const make = useDeskWorker();
  const [recipe, setRecipe] = useState(source.recipe);
  const [quarters, setQuarters] = useState(() => (Math.round(source.recipe.turn / 90) + 4) % 4);
  const [straighten, setStraighten] = useState(() => source.recipe.turn - Math.round(source.recipe.turn / 90) * 90);
  const [shape, setShape] = useState(source.recipe.crop ? 'free' : 'whole');
  const [ratio, setRatio] = useState(1.25);
  const [at, setAt] = useState({ x: 0, y: 0 });
  const [zoom, setZoom] = useState(1);
  const [shown, setShown] = useState<string | null>(null);
  const [balance, setBalance] = useState<{ warmth: number; tint: number } | null>(null);
  const [twice, setTwice] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState('');
  const [small] = useState(() => URL.createObjectURL(source.small));
  const round = useRef(0);
  useEffect(() => () => URL.revokeObjectURL(small), [small]);

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

  // The result, small, made beside the page; of several only the last one counts.
  useEffect(() => {
    const mine = ++round.current;
    const timer = setTimeout(() => {
      make({ picture: source.small, recipe, side: 520 }).then(
        (made) => {
          if (mine !== round.current) return;
          setBalance(made.balance);
          setShown((before) => {
            if (before) URL.revokeObjectURL(before);
            return URL.createObjectURL(made.result);
          });
        },
        (error: Error) => setProblem(error.message),
      );
    }, 80);
    return () => clearTimeout(timer);
  }, [make, recipe, source.small]);

  const keep = async () => {
    setBusy(true);
    setProblem('');
    try {
      if (JSON.stringify(recipe) === JSON.stringify(plainRecipe)) {
        if (source.original !== hash) await restore(source.original);
        return close();
      }
      const { result } = await make({ picture: source.whole, recipe, side: null });
      const made = { original: source.original, place, recipe };
      const refused = await uploadPhoto(`/api/v1/items/${itemId}/photos`, result, `photo-${place + 1}.jpg`, {
        'x-made-from': encodeURIComponent(JSON.stringify(made)),
      });
      if (refused) throw new Error(refused);
      await changed();
      if (twice) await append(source.original);
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
          {shown ? (
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
          balance={balance}
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
