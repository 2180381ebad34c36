import type { PhotoInputKind } from '../verb-inputs';
import { ApartInput, KeptBadgeInput } from './badge-choices';
import { BadgeInput } from './badge-input';
import { OrderInput } from './order-input';
import { PictureInput } from './picture-input';

type Props = { as: PhotoInputKind; label: string; value: string; change: (text: string) => void };

/** A box of a step on photos that is not typed into. */
export function PhotoInput({ as, ...props }: Props) {
  switch (as) {
    case 'picture':
      return <PictureInput {...props} />;
    case 'order':
      return <OrderInput {...props} />;
    case 'layer':
      return <BadgeInput {...props} />;
    case 'badge':
      return <KeptBadgeInput {...props} />;
    case 'apart':
      return <ApartInput {...props} />;
  }
}
