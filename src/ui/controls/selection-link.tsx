import type { ReactNode } from 'react';
import type { Selection } from '@/services/records/items/selection';
import { addressOfSelection, keepSelection } from '../data/selection';
import { Link } from './link';

/**
 * A way to a page that works on a selection. One too long for an address is kept by the browser when one goes there: on a
 * page with several such ways each leads to its own.
 */
export function SelectionLink({
  to,
  selection,
  className,
  children,
}: {
  to: '/workbench' | '/publish';
  selection: Selection & { kind: 'items' };
  className: string;
  children: ReactNode;
}) {
  const keep = () => keepSelection(selection);
  return (
    <Link
      className={className}
      href={addressOfSelection(to, selection)}
      onClick={keep}
      // Into another tab: by the middle button, or by the menu.
      onAuxClick={keep}
      onContextMenu={keep}
    >
      {children}
    </Link>
  );
}
