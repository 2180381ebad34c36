import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { standingSteps, withSelection } from '@/ui/data/selection';
import type { Action } from '@/ui/frame/actions';
import type { BesideTab } from './side-panel/side-panel';

type Props = {
  itemId: number;
  openIds: number[];
  toggleMissing: () => void;
  setView: (view: 'fields' | 'variations' | 'history') => void;
  show: (tab: BesideTab | null, accountId?: number | null) => void;
  takeOver: () => void;
  lookUp: () => void;
  copy: () => void;
  settle: () => Promise<number>;
  flush: () => Promise<void>;
};

/** The field that has the focus, so that the next item is opened at the same one. */
const fieldHere = (): string => document.activeElement?.closest('tr')?.id.replace(/^row-/, '') ?? '';

const saysNothing = (field: HTMLElement): boolean =>
  ('value' in field ? field.value : field.textContent?.trim()) === '' && field.tagName !== 'BUTTON';

/** Where something is missing that keeps a listing from going out: in the item's own column, or in a marketplace's cell. */
function missingCells(): HTMLElement[] {
  const cells = [...document.querySelectorAll('[data-mend]')].flatMap((mend): HTMLElement[] => {
    const own = mend
      .closest('tr')
      ?.querySelector<HTMLElement>(
        '[data-cell$="/0"] :is(input, textarea, select, [role=textbox], button):not([tabindex="-1"])',
      );
    const there = mend.closest('[data-cell]')?.querySelector<HTMLElement>('button');
    // What is mended in the item is mended for all of them; where it has no such field, or says it already, in the cell.
    const cell = own && (mend.getAttribute('data-mend') === 'item' || saysNothing(own)) ? own : there;
    return cell ? [cell] : [];
  });
  return [...new Set(cells)];
}

/** The next cell in which something is missing, after the one that has the focus. */
function nextMissing(): void {
  const cells = missingCells();
  const here = document.activeElement;
  const next =
    cells.find((cell) => here && here.compareDocumentPosition(cell) & Node.DOCUMENT_POSITION_FOLLOWING) ?? cells[0];
  next?.focus();
  next?.scrollIntoView({ block: 'center', inline: 'center' });
}

/** What can be done on the sheet, with its keys: in the launcher and in the list of shortcuts. */
export function useSheetActions(props: Props): Action[] {
  const { itemId, openIds, toggleMissing, setView, show, takeOver, lookUp, copy, settle, flush } = props;
  const router = useRouter();
  return useMemo(() => {
    const go = (by: number) => {
      const at = openIds.indexOf(itemId);
      const next = openIds[(at + by + openIds.length) % openIds.length];
      if (next === undefined || next === itemId) return;
      const field = fieldHere();
      // A new one of which nothing was said leaves no trace.
      void flush().then(() => router.push(`/items/${next}${field ? `?at=${encodeURIComponent(field)}` : ''}`));
    };
    return [
      { label: 'Next missing field', hint: 'Where some marketplace wants something', keys: 'Alt N', run: nextMissing },
      { label: 'Only what is missing', hint: 'Show or hide the rows that are fine', keys: 'Alt M', run: toggleMissing },
      { label: 'Next item', hint: 'In the same field, of this sitting', keys: 'Alt PageDown', run: () => go(1) },
      { label: 'Item before', hint: 'In the same field, of this sitting', keys: 'Alt PageUp', run: () => go(-1) },
      { label: 'New from this', hint: 'A copy, without what belongs to this piece alone', keys: 'Alt D', run: copy },
      { label: 'Take over', hint: 'Fields of this item into others', keys: 'Alt T', run: takeOver },
      { label: 'From a catalogue', hint: 'Details of the product into this item', keys: 'Alt C', run: lookUp },
      { label: 'Variations', hint: 'Axes and combinations', keys: 'Alt V', run: () => setView('variations') },
      { label: 'Fields', hint: 'Back to the sheet', keys: 'Alt S', run: () => setView('fields') },
      {
        label: 'History',
        hint: 'Who changed what, and what was answered',
        keys: 'Alt H',
        run: () => setView('history'),
      },
      { label: 'Preview', hint: 'What a buyer sees', keys: 'Alt P', run: () => show('preview') },
      { label: 'Price for a wanted net', hint: 'Beside the sheet', keys: 'Alt E', run: () => show('price') },
      { label: 'Help with wording', hint: 'Proposals, with reasons', keys: 'Alt W', run: () => show('wording') },
      { label: 'Parts', hint: 'What it is one stock with', keys: 'Alt B', run: () => show('parts') },
      {
        label: 'Add photos',
        hint: 'Choose files',
        keys: 'Alt A',
        run: () => document.querySelector<HTMLInputElement>('input[type=file]')?.click(),
      },
      {
        label: 'Publish this item',
        hint: 'See what would happen first',
        keys: 'Alt Enter',
        run: () => void settle().then((id) => router.push(withSelection('/publish', { kind: 'items', ids: [id] }))),
      },
      {
        label: 'Put this item away',
        hint: 'Archive or delete it; what is live ends',
        run: () =>
          void settle().then((id) =>
            router.push(
              withSelection('/workbench', { kind: 'items', ids: [id] }, { steps: standingSteps('archived') }),
            ),
          ),
      },
    ];
  }, [itemId, openIds, toggleMissing, setView, show, takeOver, lookUp, copy, settle, flush, router]);
}
