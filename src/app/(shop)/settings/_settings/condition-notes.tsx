'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type ConditionGrade, conditionGrades } from '@/core/item/condition';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { LinesForm } from './lines-form';

const longest = 200;

/** One sentence a line; blank lines say nothing, and the same twice is once. */
const sentences = (text: string): string[] => [
  ...new Set(
    text
      .split('\n')
      .map((one) => one.trim())
      .filter(Boolean),
  ),
];

/** Ready-made sentences for condition notes, for each condition, in the order in which they read. */
export function ConditionNotes() {
  const [grade, setGrade] = useState<ConditionGrade>('good');
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['settings'],
    queryFn: () => api('GET /settings'),
  });
  /** @returns what was kept before */
  const keep = async (list: string[]): Promise<string[]> => {
    // What is kept for the other conditions is read anew: somebody else may have written there meanwhile.
    const { conditionSnippets } = await api('GET /settings');
    await api('PUT /settings', { body: { conditionSnippets: { ...conditionSnippets, [grade]: list } } });
    return conditionSnippets[grade] ?? [];
  };
  const save = useCommand(
    async (text: string) => {
      const list = sentences(text);
      const long = list.find((one) => one.length > longest);
      if (long) throw new Error(`“${long.slice(0, 40)} …” is longer than ${longest} characters`);
      const before = await keep(list);
      return { text: 'Kept; they can be switched on while one scans', back: () => keep(before) };
    },
    { touches: [['settings']] },
  );
  if (isPending) return <Loading what="the settings" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const now = (data.conditionSnippets[grade] ?? []).join('\n');
  return (
    <section aria-labelledby="condition-notes">
      <h2 id="condition-notes" className="mb-2 font-semibold">
        Condition notes
      </h2>
      <LinesForm
        label="Ready-made sentences, one a line, in the order in which they read"
        lines={now}
        of={grade}
        rows={6}
        placeholder="Spine creased"
        button="Keep the sentences"
        keep={save}
      >
        <label className="block w-64">
          For the condition
          <select
            className="select select-sm w-full"
            value={grade}
            onChange={(event) =>
              setGrade(conditionGrades.find((one) => one.id === event.target.value)?.id ?? conditionGrades[0].id)
            }
          >
            {conditionGrades.map((one) => (
              <option key={one.id} value={one.id}>
                {one.label}
                {data.conditionSnippets[one.id]?.length ? ` (${data.conditionSnippets[one.id]?.length})` : ''}
              </option>
            ))}
          </select>
        </label>
      </LinesForm>
    </section>
  );
}
