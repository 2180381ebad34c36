import type { ReactNode } from 'react';
import { type Command, submitted } from '@/ui/data/use-command';

type Props = {
  /** What stands above: the choice of what the lines are for. */
  children?: ReactNode;
  /** What a line is. */
  label: ReactNode;
  /** The lines as they are kept; null while nothing is chosen. */
  lines: string | null;
  /** What they are kept for: another one begins with its own lines. */
  of?: string;
  rows: number;
  placeholder: string;
  button: string;
  keep: Command<[text: string]>;
  look?: string;
};

/** Settings that are written as lines of text: kept as a whole, with what is wrong below. */
export const LinesForm = ({ children, label, lines, of = '', rows, placeholder, button, keep, look = '' }: Props) => (
  <form className="space-y-2" onSubmit={submitted((form) => void keep.run(String(form.get('lines'))))}>
    {children}
    {lines === null ? null : (
      <>
        <label className="block max-w-2xl">
          {label}
          <textarea
            key={`${of}/${lines}`}
            className={`textarea w-full ${look}`}
            name="lines"
            rows={rows}
            defaultValue={lines}
            placeholder={placeholder}
          />
        </label>
        <button type="submit" className="btn btn-sm" disabled={keep.busy}>
          {button}
        </button>
      </>
    )}
    {keep.problem ? (
      <p role="alert" className="text-error">
        {keep.problem}
      </p>
    ) : null}
  </form>
);
