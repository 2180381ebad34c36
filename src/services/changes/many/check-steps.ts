import { argumentFault, type Step, stepFault } from '../../../core/edit';
import { NettingError } from '../../../core/errors';
import { fieldsFor } from '../../../core/field';
import type { Executor } from '../../../db/client';
import { loadCustomFields } from '../../records/items/load-custom-fields';

/** Steps that cannot be carried out on anything are refused as a whole, the first of them named. */
export async function checkSteps(db: Executor, steps: readonly Step[]): Promise<void> {
  const catalogue = fieldsFor(await loadCustomFields(db));
  for (const [at, step] of steps.entries()) {
    const fault =
      stepFault(step, catalogue) ?? (step.do.verb === 'follow' ? null : (argumentFault(step.do)?.message ?? null));
    if (fault) throw new NettingError('invalid', `Step ${at + 1}: ${fault}`, { field: 'steps' });
  }
}
