import { type Shipment, unitsText } from './view';

const shown = 8;

/** What is still to be done of the boxes; what the table shows already is summed up in a line. */
export function BoxFaults({ shipment: { faults, units } }: { shipment: Shipment }) {
  const left = units.reduce((sum, one) => sum + Math.max(0, one.quantity - one.packed), 0);
  const others = faults.filter((one) => !/not packed$/.test(one.message));
  if (left === 0 && others.length === 0) return null;
  return (
    <ul className="mt-2 text-[12px] text-warning" aria-label="What is still to be done">
      {left ? <li>{left === 1 ? 'One unit is' : `${unitsText(left)} are`} not packed yet</li> : null}
      {others.slice(0, shown).map((one) => (
        <li key={one.message}>{one.message}</li>
      ))}
      {others.length > shown ? <li>and {others.length - shown} more</li> : null}
    </ul>
  );
}
