'use client';

import { useMemo, useState } from 'react';
import type { GatheringView, QuestionView } from '@/services/gathering/find-gathering';
import { Price } from '@/ui/controls/format';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';
import { usePageActions } from '@/ui/frame/actions';

type Answer = NonNullable<QuestionView['answer']>;
const answers: { answer: Answer; label: string; keys: string; hint: string }[] = [
  { answer: 'same', label: 'The same thing', keys: 'S', hint: 'They become one item with a link each' },
  { answer: 'different', label: 'Two things', keys: 'D', hint: 'Each becomes an item; it is not asked again' },
  { answer: 'later', label: 'Later', keys: 'L', hint: 'Both wait' },
];
const words: Record<Answer, string> = { same: 'the same thing', different: 'two things', later: 'later' };

/** Two things that may be one, side by side with what speaks for it; a key decides, and the next one stands there. */
export function Questions({ view, open }: { view: GatheringView; open: number }) {
  const unanswered = view.questions.findIndex((one) => one.answer === null);
  const [at, setAt] = useState<number | null>(null);
  const here = at ?? Math.max(0, unanswered);
  const question = view.questions[here];
  const decide = useCommand(
    async (id: number, answer: Answer) => {
      await api('PUT /match-questions/{id}', { params: { id }, body: { answer } });
      setAt(null);
      return undefined;
    },
    { touches: [['gatherings', view.id]], tells: true },
  );
  const goOn = useCommand(
    async () => {
      await api('POST /gatherings/{id}/go-on', { params: { id: view.id } });
      setAt(null);
      return undefined;
    },
    { touches: [['gatherings', view.id]], tells: true },
  );
  const { run } = decide;
  const isWorking = view.state === 'working';
  usePageActions(
    useMemo(
      () =>
        question && !isWorking
          ? answers.map(({ answer, label, keys, hint }) => ({
              label,
              keys,
              hint,
              run: () => void run(question.id, answer),
            }))
          : [],
      [question, run, isWorking],
    ),
  );
  const decided = view.questions.filter((one) => one.answer === 'same' || one.answer === 'different').length;
  return (
    <section aria-label="Is it one thing?" className="flex min-h-0 flex-col">
      <div className="flex flex-wrap items-center gap-3 border-b border-base-300 px-4 py-2">
        <h2 className="font-semibold">Is it one thing?</h2>
        <span className="quiet">
          {counted(open + view.moreQuestions, 'pair')} to decide
          {decided ? `, ${decided} decided` : ''}
        </span>
        <button
          type="button"
          className="btn btn-primary btn-sm ml-auto"
          disabled={isWorking || decided === 0 || goOn.busy}
          onClick={() => void goOn.run()}
        >
          Bring in what is decided
        </button>
      </div>
      <div className="min-h-0 flex-1 overflow-auto p-4">
        {question ? (
          <>
            <div className="grid grid-cols-2 gap-4">
              <Side side={question.a} />
              <Side side={question.b} />
            </div>
            <ul aria-label="What speaks for it, and against it" className="my-3 flex flex-wrap gap-1.5">
              {question.evidence.map((one) => (
                <li
                  key={one.said}
                  className={`rounded border px-2 py-0.5 text-[13px] ${one.weight > 0 ? 'border-success' : 'border-warning'}`}
                >
                  <span aria-hidden="true">{one.weight > 0 ? '+' : '−'}</span>{' '}
                  <span className="sr-only">{one.weight > 0 ? 'for it:' : 'against it:'}</span>
                  {one.said}
                </li>
              ))}
            </ul>
            <div className="flex flex-wrap items-center gap-2">
              {answers.map(({ answer, label, keys, hint }) => (
                <button
                  key={answer}
                  type="button"
                  title={hint}
                  className={`btn btn-sm ${question.answer === answer ? 'bg-base-300' : ''}`}
                  aria-pressed={question.answer === answer}
                  disabled={isWorking}
                  onClick={() => void run(question.id, answer)}
                >
                  {label} <kbd className="kbd kbd-xs">{keys}</kbd>
                </button>
              ))}
            </div>
          </>
        ) : null}
        <ol aria-label="All pairs" className="mt-4 border-t border-base-300/60">
          {view.questions.map((one, index) => (
            <li key={one.id}>
              <button
                type="button"
                aria-current={index === here ? 'true' : undefined}
                className={`flex w-full items-baseline gap-3 px-2 py-1 text-left hover:bg-base-200 ${index === here ? 'bg-base-200' : ''}`}
                onClick={() => setAt(index)}
              >
                <span className="min-w-0 flex-1 truncate">{one.a.title || one.a.sku}</span>
                <span className="quiet shrink-0">
                  {one.a.where}, {one.b.where}
                </span>
                <span className={`w-28 shrink-0 text-right ${one.answer ? '' : 'text-warning'}`}>
                  {one.answer ? words[one.answer] : 'to decide'}
                </span>
              </button>
            </li>
          ))}
        </ol>
      </div>
    </section>
  );
}

function Side({ side }: { side: QuestionView['a'] }) {
  return (
    <div className="rounded border border-base-300 p-3">
      <p className="quiet text-[12px]">{side.where}</p>
      <div className="my-2 flex h-44 gap-2 overflow-hidden">
        {side.photos.length ? (
          side.photos
            .slice(0, 2)
            .map((photo) => (
              <img
                key={photo}
                src={photo}
                alt=""
                className="h-full min-w-0 flex-1 rounded-sm bg-base-200 object-contain"
              />
            ))
        ) : (
          <span className="quiet m-auto">No photo</span>
        )}
      </div>
      <p dir="auto" className="font-medium">
        {side.url ? (
          <a
            className="hover:underline"
            href={side.url}
            {...(side.url.startsWith('/') ? {} : { target: '_blank', rel: 'noreferrer' })}
          >
            {side.title || 'Without a title'}
          </a>
        ) : (
          side.title
        )}
      </p>
      <p className="flex items-baseline gap-3">
        <Price amount={side.price} currency={side.currency || 'EUR'} />
        <span className="mono quiet text-[12px]">{side.sku || 'no stock number'}</span>
        {side.quantity === null ? null : <span className="quiet">{counted(side.quantity, 'unit')}</span>}
      </p>
    </div>
  );
}
