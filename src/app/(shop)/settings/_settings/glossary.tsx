'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type Term, termSchema } from '@/core/wording/term';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { LinesForm } from './lines-form';

const sign = '=';
const lineOf = ({ from, to }: Term) => `${from} ${sign} ${to}`;

/** One term a line, ours and theirs; the last of two that say the same of ours holds. */
function readTerms(text: string): Term[] {
  const terms = new Map<string, Term>();
  for (const [at, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const cut = line.indexOf(sign);
    const read = termSchema.safeParse({ from: line.slice(0, Math.max(0, cut)), to: line.slice(cut + 1) });
    if (cut === -1 || !read.success)
      throw new Error(`Line ${at + 1} is none of the form “boat = Boot”: ${line.slice(0, 60)}`);
    terms.set(read.data.from.toLowerCase(), read.data);
  }
  return [...terms.values()];
}

/** One's own terms in other languages, put in word for word where an account's texts are in one of them. */
export function Glossary() {
  const [language, setLanguage] = useState('');
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['settings'],
    queryFn: () => api('GET /settings'),
  });
  const accounts = useQuery({ queryKey: ['accounts'], queryFn: () => api('GET /accounts') });
  /** @returns what was kept before */
  const keep = async (terms: Term[]): Promise<Term[]> => {
    // What is kept in the other languages is read anew: somebody else may have written there meanwhile.
    const { [language]: before = [], ...others } = (await api('GET /settings')).glossaries;
    await api('PUT /settings', { body: { glossaries: terms.length ? { ...others, [language]: terms } : others } });
    return before;
  };
  const save = useCommand(
    async (text: string) => {
      const terms = readTerms(text);
      const before = await keep(terms);
      const said = terms.length ? 'Kept; texts that were sent stay as they are' : 'Taken away';
      return { text: said, back: () => keep(before) };
    },
    { touches: [['settings'], ['wording']] },
  );
  if (isPending) return <Loading what="the settings" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const spoken = (accounts.data?.accounts ?? []).flatMap((one) => (one.language ? [one.language] : []));
  const languages = [...new Set([...Object.keys(data.glossaries), ...spoken])].sort();
  const now = (data.glossaries[language] ?? []).map(lineOf).join('\n');
  return (
    <section aria-labelledby="glossary">
      <h2 id="glossary" className="mb-2 font-semibold">
        Words in other languages
      </h2>
      <LinesForm
        label="One a line: yours = theirs"
        lines={language ? now : null}
        of={language}
        rows={8}
        placeholder="boat = Boot"
        button="Keep the words"
        keep={save}
      >
        <p className="quiet max-w-xl">
          {languages.length
            ? 'Put in word for word, and nothing else, where a marketplace’s texts are in that language: proposed beside the sheet, or for many at once.'
            : 'Say on a marketplace’s page in which language its texts are; then its words stand here.'}
        </p>
        {languages.length ? (
          <label className="block w-64">
            Language
            <select
              className="select select-sm w-full"
              value={language}
              onChange={(event) => setLanguage(event.target.value)}
            >
              <option value="">Choose one</option>
              {languages.map((one) => (
                <option key={one} value={one}>
                  {one} ({(data.glossaries[one] ?? []).length})
                </option>
              ))}
            </select>
          </label>
        ) : null}
      </LinesForm>
    </section>
  );
}
