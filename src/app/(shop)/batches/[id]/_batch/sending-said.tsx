import type { KeptAct } from './kept-acts';

type Props = { waiting: KeptAct[]; isAway: boolean; problem: string; said: string };

/** What the scan field has to say: a problem, what waits for the connection, or the last command. */
export function SendingSaid({ waiting, isAway, problem, said }: Props) {
  const isOne = waiting.length === 1;
  const away = `No connection. ${waiting.length} ${isOne ? 'scan waits' : 'scans wait'} here and ${isOne ? 'is' : 'are'} sent when it is back`;
  return (
    <p id="intake-said" role="status" className="min-h-5 text-[13px]">
      {problem ? <span className="text-error">{problem}</span> : null}
      {!problem && waiting.length ? (
        <span className={isAway ? 'text-warning' : 'quiet'}>{isAway ? away : `Sending ${waiting.length} …`}</span>
      ) : null}
      {!problem && waiting.length === 0 ? said : null}
    </p>
  );
}
