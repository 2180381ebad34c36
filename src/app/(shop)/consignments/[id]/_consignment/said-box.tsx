import type { Said } from './use-packing';
import { unitsText } from './view';

type Props = { last: Said | null; waiting: number; isAway: boolean };

const looks: Record<Said['is'], string> = {
  placed: 'bg-base-200',
  right: 'bg-success text-success-content',
  wrong: 'bg-error text-error-content',
  closed: 'bg-base-200',
  undone: 'bg-base-200',
  refused: 'bg-error text-error-content',
};

/** Where the piece in the hand goes, to be read from an arm's length. */
export function SaidBox({ last, waiting, isAway }: Props) {
  const isBox = last?.is === 'placed' || last?.is === 'right' || last?.is === 'wrong';
  return (
    <div
      id="packed-said"
      role="status"
      className={`flex min-h-52 flex-col justify-center rounded p-4 ${last ? looks[last.is] : 'bg-base-200'}`}
    >
      {last === null ? <p className="text-lg">Scan a piece: its box is named here.</p> : null}
      {last && isBox && last.to ? (
        <>
          <p className="text-2xl leading-tight">{last.to.warehouse}</p>
          <p className="figures text-7xl font-semibold leading-none">{last.to.box}</p>
          {last.is === 'placed' && last.isNewBox ? <p className="mt-1 text-lg font-semibold">A new box</p> : null}
        </>
      ) : null}
      {last && last.is !== 'placed' ? <p className="mt-1 text-lg">{last.message}</p> : null}
      {last?.is === 'placed' ? (
        <p className="mt-2 line-clamp-2">
          <span className="mono text-[12px]">{last.sku}</span> {last.title}
        </p>
      ) : null}
      {last && last.is !== 'refused' ? (
        <p className="mt-1 text-[12px]">{last.left === 0 ? 'All is packed' : `${unitsText(last.left)} left`}</p>
      ) : null}
      {waiting ? (
        <p className="mt-1 text-[12px] font-semibold">
          {isAway ? 'No connection: ' : ''}
          {waiting === 1 ? 'one scan waits' : `${waiting} scans wait`}
        </p>
      ) : null}
    </div>
  );
}
