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
  copy: () => void;
  settle: () => Promise<unknown>;
};

/** The field that has the focus, so that the next item is opened at the same one. */
const fieldHere = (): string => document.activeElement?.closest('tr')?.id.replace(/^row-/, '') ?? '';

/** The next field in the item's own column of which some marketplace says that something is missing. */
function nextMissing(): void {
  const rows = [...document.querySelectorAll('tr[id^="row-"]')].filter((row) => row.querySelector('td .text-warning'));
  const here = document.activeElement?.closest('tr');
  const next =
    rows.find((row) => here && here.compareDocumentPosition(row) & Node.DOCUMENT_POSITION_FOLLOWING) ?? rows[0];
  const input = next?.querySelector<HTMLElement>(
    '[data-cell$="/0"] :is(input, textarea, select, [role=textbox], button):not([tabindex="-1"]), [data-cell] button',
  );
  input?.focus();
  input?.scrollIntoView({ block: 'center' });
}

/** What can be done on the sheet, with its keys: in the launcher and in the list of shortcuts. */
export function useSheetActions(props: Props): Action[] {
  const { itemId, openIds, toggleMissing, setView, show, takeOver, copy, settle } = props;
  const router = useRouter();
  return useMemo(() => {
    const go = (by: number) => {
      const at = openIds.indexOf(itemId);
      const next = openIds[(at + by + openIds.length) % openIds.length];
      if (next === undefined || next === itemId) return;
      const field = fieldHere();
      void settle().then(() => router.push(`/items/${next}${field ? `?at=${encodeURIComponent(field)}` : ''}`));
    };
    return [
      { label: 'Next missing field', hint: 'Where some marketplace wants something', keys: 'Alt N', run: nextMissing },
      { label: 'Only what is missing', hint: 'Show or hide the rows that are fine', keys: 'Alt M', run: toggleMissing },
      { label: 'Next item', hint: 'In the same field, of this sitting', keys: 'Alt PageDown', run: () => go(1) },
      { label: 'Item before', hint: 'In the same field, of this sitting', keys: 'Alt PageUp', run: () => go(-1) },
      { label: 'New from this', hint: 'A copy, without what belongs to this piece alone', keys: 'Alt D', run: copy },
      { label: 'Take over', hint: 'Fields of this item into others', keys: 'Alt T', run: takeOver },
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
        run: () => void settle().then(() => router.push(withSelection('/publish', { kind: 'items', ids: [itemId] }))),
      },
      {
        label: 'Put this item away',
        hint: 'Archive or delete it; what is live ends',
        run: () =>
          void settle().then(() =>
            router.push(
              withSelection('/workbench', { kind: 'items', ids: [itemId] }, { steps: standingSteps('archived') }),
            ),
          ),
      },
    ];
  }, [itemId, openIds, toggleMissing, setView, show, takeOver, copy, settle, router]);
}
