import { useState } from 'react';
import type { LayerPlace } from '@/core/photo/layer';
import type { PreviewRow, ShownChange } from '@/services/changes/preview/preview-rows';
import type { Shot } from '@/services/changes/preview/preview-shots';
import { Dialog } from '@/ui/controls/dialog';
import { madeUrl, shotUrl } from '@/ui/photos/addresses';
import { BadgePlacer } from '@/ui/photos/badge-placer';
import { readLayer } from './badge-input';

/** The badge step that is being written: what it puts on, and where single photos have it elsewhere. */
export type BadgeStep = { layer: string; apart: string; set: (apart: string) => void };

type Props = {
  rows: PreviewRow[];
  nameOf: (account: number | null) => string | undefined;
  left: ReadonlySet<number>;
  leave: (ids: ReadonlySet<number>) => void;
  badge: BadgeStep | null;
};

/** Photos of each item before and after, side by side, to be looked over and to be left out one by one. */
export function ContactSheet({ rows, nameOf, left, leave, badge }: Props) {
  const [moving, setMoving] = useState<Shot | null>(null);
  const layer = badge ? readLayer(badge.layer) : null;
  const apartOf = (): Record<string, LayerPlace> => (badge?.apart ? JSON.parse(badge.apart) : {}); // written below
  return (
    <>
      <ul aria-label="Contact sheet" className="grid grid-cols-[repeat(auto-fill,minmax(17rem,1fr))] gap-3 p-3">
        {rows.map((row) => {
          const isTaken = !left.has(row.id);
          const changes = row.changes.filter((change) => change.shots);
          return (
            <li
              key={row.id}
              className={`rounded border border-base-300 p-2 ${isTaken && changes.length ? '' : 'border-dashed bg-base-200'}`}
            >
              <label className="flex items-center gap-2">
                <input
                  type="checkbox"
                  className="checkbox checkbox-xs"
                  aria-label={`Change ${row.sku}`}
                  checked={isTaken}
                  onChange={(event) => {
                    const next = new Set(left);
                    if (event.target.checked) next.delete(row.id);
                    else next.add(row.id);
                    leave(next);
                  }}
                />
                <span className="mono text-[12px] whitespace-nowrap">{row.sku}</span>
                <span className="quiet truncate text-[12px]">{row.title}</span>
              </label>
              {row.refused ? <p className="text-[12px] text-warning">{row.refused}</p> : null}
              {row.breaks.length ? <p className="text-[12px] text-error">{row.breaks.join('. ')}</p> : null}
              {!row.refused && changes.length === 0 ? <p className="quiet text-[12px]">As they are</p> : null}
              {changes.map((change) => (
                <Pair
                  key={change.column}
                  change={change}
                  name={nameOf(change.accountId)}
                  move={layer ? setMoving : null}
                />
              ))}
            </li>
          );
        })}
      </ul>
      {moving && layer && badge ? (
        <Dialog title="The badge on this photo" close={() => setMoving(null)}>
          <Mover
            shot={moving}
            layer={layer}
            place={apartOf()[moving.original] ?? layer.place}
            keep={(place) => {
              badge.set(JSON.stringify({ ...apartOf(), [moving.original]: place }));
              setMoving(null);
            }}
          />
        </Dialog>
      ) : null}
    </>
  );
}

const isSame = (a: Shot, b: Shot | undefined) => a.hash === b?.hash && String(a.shape) === String(b?.shape);

/** Before above, after below; the photos that become others are large. */
function Pair({
  change,
  name,
  move,
}: {
  change: ShownChange;
  name: string | undefined;
  move: ((shot: Shot) => void) | null;
}) {
  const { before, after } = change.shots ?? { before: [], after: [] };
  const changed = after.flatMap((shot, at) => (isSame(shot, before[at]) ? [] : [{ shot, at }])).slice(0, 2);
  return (
    <div className="mt-1.5 space-y-1">
      {name ? <p className="quiet text-[12px]">{name}</p> : null}
      <div className="flex items-start gap-1.5">
        {changed.map(({ shot, at }) => {
          const old = before[at];
          return (
            <figure key={`${shot.hash}-${at}`} className="min-w-0 flex-1">
              <div className="flex gap-1">
                {old && old.original === shot.original ? (
                  <Picture shot={old} side={200} label={`Photo ${at + 1} before`} large />
                ) : null}
                <Picture shot={shot} side={200} label={`Photo ${at + 1} after`} large />
              </div>
              <figcaption className="flex min-h-5 items-center gap-2 text-[11px]">
                <span className="quiet figures whitespace-nowrap">
                  {at + 1} of {after.length}
                </span>
                {shot.covers ? <span className="text-warning">Covers the thing</span> : null}
                {move && shot.recipe.layers.length ? (
                  <button type="button" className="ml-auto underline" onClick={() => move(shot)}>
                    Move
                  </button>
                ) : null}
              </figcaption>
            </figure>
          );
        })}
        {changed.length === 0 ? (
          <p className="quiet text-[12px]">{after.length ? 'Fewer than before' : 'No photo any more'}</p>
        ) : null}
      </div>
      <Strip label="Before" shots={before} />
      <Strip label="After" shots={after} />
    </div>
  );
}

function Strip({ label, shots }: { label: string; shots: Shot[] }) {
  return (
    <div className="flex items-center gap-1">
      <span className="quiet w-10 shrink-0 text-[11px]">{label}</span>
      <div
        className="flex flex-wrap gap-0.5"
        role="img"
        aria-label={`${label}: ${shots.length} ${shots.length === 1 ? 'photo' : 'photos'}`}
      >
        {shots.slice(0, 14).map((shot, at) => (
          <Picture key={`${shot.hash}-${at}`} shot={shot} side={96} />
        ))}
        {shots.length > 14 ? <span className="quiet text-[11px]">+{shots.length - 14}</span> : null}
      </div>
    </div>
  );
}

/** A photo in the shape that it gets there. */
function Picture({ shot, side, label, large = false }: { shot: Shot; side: number; label?: string; large?: boolean }) {
  const [wide, high] = shot.shape ?? [shot.width, shot.height];
  return (
    <img
      src={shotUrl(shot, side * 2)}
      alt={label ?? ''}
      loading="lazy"
      decoding="async"
      className={`rounded bg-base-200 object-contain ${large ? 'min-w-0 flex-1' : 'h-8'}`}
      style={large ? { aspectRatio: `${wide} / ${high}`, maxHeight: '11rem' } : { aspectRatio: `${wide} / ${high}` }}
    />
  );
}

function Mover({
  shot,
  layer,
  place,
  keep,
}: {
  shot: Shot;
  layer: NonNullable<ReturnType<typeof readLayer>>;
  place: LayerPlace;
  keep: (place: LayerPlace) => void;
}) {
  const [now, setNow] = useState(place);
  const bare = { ...shot.recipe, layers: shot.recipe.layers.slice(0, -1) };
  return (
    <div className="space-y-3">
      <BadgePlacer
        picture={madeUrl(shot.original, bare, 640)}
        width={shot.width}
        height={shot.height}
        layer={{ ...layer, place: now }}
        place={setNow}
      />
      <button type="button" className="btn btn-primary btn-sm" onClick={() => keep(now)}>
        Keep it there on this photo
      </button>
    </div>
  );
}
