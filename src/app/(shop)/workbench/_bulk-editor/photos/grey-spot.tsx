import { useRef, useState } from 'react';
import { balanceOf } from '@/core/photo/tone';
import { photoUrl } from '@/ui/data/api';
import { useModels } from './models';

/** White balance by a spot that is grey in truth, clicked on in one photo; the others were taken in the same light. */
export function GreySpot({ set }: { set: (balance: { warmth: number; tint: number }) => void }) {
  const { models } = useModels();
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState(0);
  const picture = useRef<HTMLImageElement>(null);
  const photo = models[at % Math.max(1, models.length)]?.photos[0];
  if (!photo) return null;
  const pick = (u: number, v: number) => {
    const image = picture.current;
    if (!image?.naturalWidth) return;
    const drawing = document.createElement('canvas');
    drawing.width = image.naturalWidth;
    drawing.height = image.naturalHeight;
    const context = drawing.getContext('2d');
    context?.drawImage(image, 0, 0);
    const reach = Math.max(2, Math.round(image.naturalWidth / 100));
    const left = Math.max(0, Math.min(image.naturalWidth - 2 * reach, Math.round(u * image.naturalWidth) - reach));
    const top = Math.max(0, Math.min(image.naturalHeight - 2 * reach, Math.round(v * image.naturalHeight) - reach));
    const { data } = context?.getImageData(left, top, 2 * reach, 2 * reach) ?? { data: new Uint8ClampedArray() };
    const sums = [0, 1, 2].map((channel) =>
      data.reduce((sum, value, index) => (index % 4 === channel ? sum + value : sum), 0),
    );
    set(balanceOf(sums[0] ?? 0, sums[1] ?? 0, sums[2] ?? 0));
  };
  return (
    <div className="col-span-2 space-y-1">
      <button type="button" className="btn btn-xs" aria-expanded={open} onClick={() => setOpen(!open)}>
        By a grey spot
      </button>
      {open ? (
        <>
          <button
            type="button"
            className="block cursor-crosshair"
            aria-label="A photo: click on a spot that is grey in truth; Enter takes the middle"
            onClick={(event) => {
              const box = event.currentTarget.getBoundingClientRect();
              // Enter clicks as well, without a place.
              if (event.detail === 0) return pick(0.5, 0.5);
              pick((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
            }}
          >
            <img ref={picture} src={photoUrl(photo.original, 'view')} alt="" className="w-full rounded" />
          </button>
          <button type="button" className="btn btn-ghost btn-xs" onClick={() => setAt(at + 1)}>
            Try another item
          </button>
        </>
      ) : null}
    </div>
  );
}
