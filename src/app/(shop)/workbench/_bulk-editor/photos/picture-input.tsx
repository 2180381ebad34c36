import { useRef, useState } from 'react';
import { photoUrl } from '@/ui/data/api';
import { keepFile } from '@/ui/data/upload';
import { useModels } from './models';

type Props = { label: string; value: string; change: (hash: string) => void };

/** A picture of one's own for a step: one that many of these items have, or a file. */
export function PictureInput({ label, value, change }: Props) {
  const { shared, models } = useModels();
  const picker = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const upload = async (file: File | undefined) => {
    if (!file) return;
    setProblem('');
    setBusy(true);
    const answer = await keepFile<{ hash: string }>('/api/v1/photos', file);
    setBusy(false);
    if ('problem' in answer) return setProblem(answer.problem);
    change(answer.kept.hash);
  };
  const few = models.length === 1 ? (models[0]?.photos.map((photo) => ({ hash: photo.hash, items: 1 })) ?? []) : [];
  const offered = [...shared, ...few].filter(
    (one, at, all) => all.findIndex((other) => other.hash === one.hash) === at,
  );
  return (
    <div className="col-span-2 space-y-1">
      <span className="quiet text-[12px]">{label}</span>
      <div className="flex flex-wrap items-center gap-1.5">
        {value ? (
          <img
            src={photoUrl(value, 'view')}
            alt={`${label}: chosen`}
            className="h-12 w-16 rounded border-2 border-primary object-cover"
          />
        ) : null}
        <button
          type="button"
          data-step-input
          className="btn btn-xs"
          disabled={busy}
          onClick={() => picker.current?.click()}
        >
          {busy ? 'Being read …' : value ? 'Another file' : 'Choose a file'}
        </button>
        <input
          ref={picker}
          type="file"
          accept="image/*,.heic,.heif"
          className="sr-only"
          tabIndex={-1}
          aria-label={`${label}: file`}
          onChange={(event) => void upload(event.target.files?.[0])}
        />
      </div>
      {offered.length ? (
        <ul className="flex flex-wrap gap-1" aria-label={`${label}: pictures that these items have in common`}>
          {offered.slice(0, 8).map(({ hash, items }, at) => (
            <li key={hash}>
              <button
                type="button"
                aria-label={`Picture ${at + 1}, on ${items} of them`}
                aria-pressed={hash === value}
                title={`On ${items} of them`}
                className={`block rounded border-2 ${hash === value ? 'border-primary' : 'border-transparent'}`}
                onClick={() => change(hash)}
              >
                <img src={photoUrl(hash, 'thumb')} alt="" className="h-9 w-9 rounded object-cover" />
              </button>
            </li>
          ))}
        </ul>
      ) : null}
      {problem ? (
        <p role="alert" className="text-error">
          {problem}
        </p>
      ) : null}
    </div>
  );
}
