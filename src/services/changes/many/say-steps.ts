import { type Step, sayStep } from '../../../core/edit';
import { fieldsFor } from '../../../core/field';
import { homeCurrency } from '../../../core/measure';
import type { Executor } from '../../../db/client';
import { accountNames } from '../../records/accounts/account-names';
import { loadCustomFields } from '../../records/items/load-custom-fields';

/** What steps do, in words: how a change is called of which nothing else was said. */
export async function saySteps(db: Executor, steps: readonly Step[]): Promise<string> {
  const [catalogue, names] = [fieldsFor(await loadCustomFields(db)), await accountNames()];
  const nameOf = (id: number) => names.get(id) ?? 'an account that is gone';
  return steps
    .map((step) => sayStep(step, homeCurrency, catalogue, nameOf))
    .join('; ')
    .slice(0, 200);
}
