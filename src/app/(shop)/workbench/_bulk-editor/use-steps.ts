import { skipToken, useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import type { Step } from '@/core/edit/step';
import type { Catalogue } from '@/core/field';
import { api } from '@/ui/data/api';
import { isProblem, newStep, readStep, type StepDraft } from './steps';
import { stepsIn } from './steps-in';
import { useArgumentFault } from './use-argument-fault';
import { type CatalogueOf, useCatalogues } from './use-catalogue';
import { writeStep } from './write-step';

export type WrittenSteps = {
  drafts: StepDraft[];
  setDrafts: (drafts: StepDraft[]) => void;
  /** Those that are carried out; none while one of them is not whole. */
  steps: Step[];
  /** Puts steps into the boxes, as soon as the fields that they name are known. */
  open: (steps: readonly Step[]) => void;
  catalogueOf: CatalogueOf;
  catalogueAt: (step: Step) => Catalogue;
};

/** The steps as they are being written; the address may bring some, or a routine's. */
export function useSteps(): WrittenSteps {
  const params = useSearchParams();
  const [drafts, setDrafts] = useState<StepDraft[]>([newStep(1)]);
  const [opening, open] = useState<readonly Step[]>([]);
  useEffect(() => {
    const asked = stepsIn(params.get('steps'));
    if (asked.length) open(asked);
  }, [params]);
  const { of: catalogueOf, isRead } = useCatalogues([
    ...drafts.flatMap((step) => step.accounts.slice(0, 1)),
    ...opening.flatMap(({ where }) => (where.on === 'accounts' ? where.accounts.slice(0, 1) : [])),
  ]);
  const catalogueAt = ({ where }: Step) =>
    catalogueOf({ on: where.on, accounts: where.on === 'accounts' ? where.accounts : [] });
  if (opening.length > 0 && isRead) {
    setDrafts(opening.map((step, at) => writeStep(step, at + 1, catalogueAt(step))));
    open([]);
  }
  const wanted = Number(params.get('routine'));
  const routines = useQuery({ queryKey: ['routines'], queryFn: wanted ? () => api('GET /routines') : skipToken });
  const found = routines.data?.routines.find((one) => one.id === wanted);
  const [opened, setOpened] = useState(0);
  if (found && opened !== wanted) {
    setOpened(wanted);
    open(found.steps);
  }
  const faultOf = useArgumentFault(drafts);
  const steps = useMemo(() => {
    const read = drafts.filter((draft) => !draft.off).map((draft) => readStep(draft, catalogueOf(draft), faultOf));
    const whole = read.flatMap((one) => (isProblem(one) ? [] : [one]));
    return whole.length === read.length ? whole : [];
  }, [drafts, catalogueOf, faultOf]);
  return { drafts, setDrafts, steps, open, catalogueOf, catalogueAt };
}
