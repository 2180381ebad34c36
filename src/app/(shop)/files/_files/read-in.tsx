'use client';

import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { Link } from '@/ui/controls/link';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { sendFile } from '@/ui/data/send-file';

const states = {
  open: 'to be looked over',
  checking: 'is being compared',
  checked: 'compared, nothing changed yet',
  applying: 'is being carried out',
  applied: 'carried out',
};

/** A file dropped, chosen or pasted; and those that were read in lately. */
export function ReadIn() {
  const router = useRouter();
  const chooser = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const [progress, setProgress] = useState<number | null>(null);
  const [problem, setProblem] = useState('');
  const [pasted, setPasted] = useState('');
  const read = async (file: Blob, name: string) => {
    setProblem('');
    setProgress(0);
    const answer = await sendFile('/api/v1/imports', file, name, setProgress);
    setProgress(null);
    if ('id' in answer) router.push(`/files/${answer.id}`);
    else setProblem(answer.problem);
  };
  return (
    <section aria-label="Read in" className="flex min-h-0 flex-col overflow-auto p-4">
      <h2 className="mb-1 font-semibold">Read in</h2>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: files are dropped here; the button beside does the same */}
      <div
        className={`rounded border border-dashed px-4 py-6 text-center ${over ? 'border-primary bg-base-200' : 'border-base-300'}`}
        onDragOver={(event) => {
          event.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(event) => {
          event.preventDefault();
          setOver(false);
          const [file] = event.dataTransfer.files;
          if (file) void read(file, file.name);
        }}
      >
        {progress === null ? (
          <>
            <p className="mb-2">
              Drop a file here: CSV, XLSX, JSON, NDJSON or XML, or one of them in a ZIP with photos; up to 200 MB.
            </p>
            <button type="button" className="btn btn-sm" onClick={() => chooser.current?.click()}>
              Choose a file
            </button>
            <input
              ref={chooser}
              type="file"
              className="sr-only"
              aria-label="A file to read in"
              accept=".csv,.tsv,.txt,.xlsx,.json,.ndjson,.xml,.zip"
              onChange={(event) => {
                const [file] = event.target.files ?? [];
                if (file) void read(file, file.name);
                event.target.value = '';
              }}
            />
          </>
        ) : (
          <p role="status">Sending, {Math.round(progress * 100)} %</p>
        )}
      </div>
      <label className="mt-3 block">
        <span className="quiet text-[12px]">Or paste rows from a spreadsheet</span>
        <textarea
          className="textarea textarea-sm mono w-full"
          rows={3}
          value={pasted}
          onChange={(event) => setPasted(event.target.value)}
        />
      </label>
      {pasted.trim() ? (
        <p className="mt-1">
          <button
            type="button"
            className="btn btn-sm"
            onClick={() => void read(new Blob([pasted], { type: 'text/plain' }), 'Pasted')}
          >
            Read what is pasted
          </button>
        </p>
      ) : null}
      {problem ? (
        <p role="alert" className="mt-2 text-error">
          {problem}
        </p>
      ) : null}
      <p className="quiet mt-2 text-[12px]">
        Nothing is changed by reading a file in: what it would change is shown first, row by row.
      </p>
      <Imports />
    </section>
  );
}

function Imports() {
  const imports = useQuery({ queryKey: ['imports'], queryFn: () => api('GET /imports') });
  const rows = imports.data?.imports ?? [];
  if (rows.length === 0) return null;
  return (
    <ul aria-label="Read in lately" className="mt-4 divide-y divide-base-300 border-y border-base-300">
      {rows.map((one) => (
        <li key={one.id} className="flex items-baseline gap-3 py-1.5">
          <Link className="link min-w-0 flex-1 truncate" href={`/files/${one.id}`}>
            {one.name}
          </Link>
          <span className="quiet text-[12px]">{states[one.state]}</span>
          <span className="quiet text-[12px]">
            <When at={one.at} />
          </span>
        </li>
      ))}
    </ul>
  );
}
