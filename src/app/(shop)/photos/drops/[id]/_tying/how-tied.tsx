import { useState } from 'react';
import { readNamePattern } from '@/core/photo/tie';
import type { DropView } from '@/services/photos/find-drop';
import { ChoiceButtons } from '@/ui/controls/choice-buttons';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

const ways = ['name', 'barcode', 'time'] as const;
const wayLabels = { name: 'By file name', barcode: 'By barcode', time: 'By time taken' };

const words: Record<DropView['way'], string> = {
  name: 'A stock number or barcode with any ending, or the folder it lies in.',
  barcode: 'A picture of a barcode comes first; everything until the next one belongs to its item.',
  time: 'A pause begins the next item, in the order in which items without photos were recorded.',
};

/** How files find their items; tried on what is there as soon as it is chosen. */
export function HowTied({ drop }: { drop: DropView }) {
  const [pattern, setPattern] = useState(drop.pattern);
  const [gap, setGap] = useState(String(drop.gapSeconds));
  const tie = useCommand(
    async (way: DropView['way']) => {
      const gapSeconds = Math.round(Number(gap)) || drop.gapSeconds;
      await api('POST /photo-drops/{id}/tie', {
        params: { id: drop.id },
        body: { way, pattern: way === 'name' ? pattern.trim() : drop.pattern, gapSeconds },
      });
      return undefined;
    },
    { touches: [['photo-drops']] },
  );
  const [example] = drop.tried;
  // As long as it was not tried on all of them it is tried on the first one.
  const isTried = pattern.trim() === drop.pattern;
  const read = pattern.trim() ? readNamePattern(pattern) : null;
  const said = !example ? null : isTried ? example.sku : read && 'match' in read ? read.match(example.path) : null;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-base-300 px-4 py-1.5">
      <ChoiceButtons
        legend="How files find their items"
        options={ways}
        words={wayLabels}
        value={drop.way}
        choose={(way) => way && void tie.run(way)}
      />
      {drop.way === 'name' ? (
        <form
          className="flex items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void tie.run('name');
          }}
        >
          <label className="flex items-center gap-1.5">
            Pattern
            <input
              className="input input-sm mono w-52"
              placeholder="the usual ways"
              maxLength={120}
              value={pattern}
              aria-invalid={read !== null && 'problem' in read}
              onChange={(event) => setPattern(event.target.value)}
            />
          </label>
          <button type="submit" className="btn btn-sm" disabled={tie.busy || pattern.trim() === drop.pattern}>
            Try it
          </button>
          {read && 'problem' in read ? (
            <span role="alert" className="text-error">
              {read.problem}
            </span>
          ) : example ? (
            <span className="quiet text-[12px]">
              <span className="mono">{example.path.split('/').at(-1)}</span> says{' '}
              <span className="mono">{typeof said === 'string' ? said : (said?.key ?? '')}</span>
              {said === null ? 'nothing' : typeof said === 'object' && said.rest ? `, place ${said.rest}` : ''}
            </span>
          ) : null}
        </form>
      ) : null}
      {drop.way === 'time' ? (
        <form
          className="flex items-center gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void tie.run('time');
          }}
        >
          <label className="flex items-center gap-1.5">
            Pause of
            <input
              className="input input-sm figures w-20"
              inputMode="numeric"
              value={gap}
              onChange={(event) => setGap(event.target.value)}
            />
            seconds
          </label>
          <button type="submit" className="btn btn-sm" disabled={tie.busy}>
            Try it
          </button>
        </form>
      ) : null}
      <span className="quiet text-[12px]">{words[drop.way]}</span>
      {tie.problem ? (
        <span role="alert" className="text-error">
          {tie.problem}
        </span>
      ) : null}
    </div>
  );
}
