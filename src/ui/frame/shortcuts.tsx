import { useActions } from './actions';
import { lettersWork, setLettersWork } from './lone-letter';

const shortcuts: [string, string][] = [
  ['Ctrl K', 'Open the launcher'],
  ['?', 'This list'],
  ['/', 'Search the inventory'],
  ['N', 'New item'],
  ['Shift N', 'New item from the last, another, a template, a catalogue'],
  ['Arrows', 'Move in a grid'],
  ['Space', 'Choose the row under the cursor'],
  ['Shift + arrows', 'Choose a range of rows or knots'],
  ['Ctrl A', 'Choose everything that the filters find'],
  ['Enter', 'Open the item, or edit the cell'],
  ['Alt + arrows', 'On a sheet: from the item’s column to the marketplaces and from row to row'],
  ['Tab', 'In a marketplace’s cell: on to what it proposes'],
  ['Ctrl C, Ctrl V, Ctrl Z', 'Copy, paste and take back in a cell or block'],
  ['Ctrl D', 'Fill a chosen block down'],
  ['Esc', 'Leave the cell, or choose nothing'],
  ['E', 'Change the chosen items'],
  ['P', 'Publish the chosen items'],
];

/** The keys that work here. */
export function Shortcuts({ close }: { close: () => void }) {
  const here = useActions().flatMap((one): [string, string][] => (one.keys ? [[one.keys, one.label]] : []));
  return (
    <div
      role="dialog"
      aria-modal="true"
      aria-label="Shortcuts"
      className="fixed inset-0 z-50 grid place-items-center bg-black/30"
      onKeyDown={(event) => event.key === 'Escape' && close()}
    >
      <div className="max-h-[88vh] w-[30rem] max-w-[94vw] overflow-auto rounded border border-base-300 bg-base-100 p-4 shadow-xl">
        <h2 className="mb-3 font-semibold">Shortcuts</h2>
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1.5">
          {[...shortcuts, ...here].map(([keys, what]) => (
            <div key={keys} className="contents">
              <dt>
                <kbd className="kbd kbd-sm">{keys}</kbd>
              </dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
        <label className="mt-4 flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            defaultChecked={lettersWork()}
            onChange={(event) => setLettersWork(event.target.checked)}
          />
          N and Shift N work wherever nothing is being written
        </label>
        {/* biome-ignore lint/a11y/noAutofocus: a dialog takes the focus when it opens */}
        <button type="button" autoFocus className="btn btn-sm mt-4" onClick={close}>
          Close
        </button>
      </div>
    </div>
  );
}
