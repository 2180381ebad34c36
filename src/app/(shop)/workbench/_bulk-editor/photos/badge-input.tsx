import dynamic from 'next/dynamic';
import { useState } from 'react';
import { layerSchema } from '@/core/photo/layer';
import { badgeUrl } from '@/ui/photos/addresses';
import { useModels } from './models';

const BadgeDialog = dynamic(() => import('@/ui/photos/badge-dialog').then((module) => module.BadgeDialog), {
  loading: () => null,
});

type Props = { label: string; value: string; change: (layer: string) => void };

/** The layer that is written in a step's box. */
export function readLayer(text: string) {
  try {
    const read = layerSchema.safeParse(JSON.parse(text));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}

/** A badge for a step: chosen or made, and placed once on one of the items. */
export function BadgeInput({ label, value, change }: Props) {
  const [open, setOpen] = useState(false);
  const { models } = useModels();
  const layer = readLayer(value);
  return (
    <div className="col-span-2 space-y-1">
      <span className="quiet text-[12px]">{label}</span>
      <div className="flex items-center gap-2">
        {layer ? (
          <img src={badgeUrl(layer.art, 240)} alt="The badge" className="max-h-9 max-w-32 rounded bg-base-200 p-0.5" />
        ) : null}
        <button type="button" data-step-input className="btn btn-xs" onClick={() => setOpen(true)}>
          {layer ? 'Change or move it' : 'Choose and place it'}
        </button>
      </div>
      {open ? (
        <BadgeDialog
          layer={layer}
          models={models.flatMap(({ sku, photos: [photo] }) => (photo ? [{ name: sku, photo }] : []))}
          keep={(next) => {
            change(JSON.stringify(next));
            setOpen(false);
          }}
          close={() => setOpen(false)}
        />
      ) : null}
    </div>
  );
}
