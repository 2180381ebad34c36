import type { TaskRow } from '../../db/schema';
import { recheckStep } from '../accounts/rules/recheck-step';
import { targetStep } from '../accounts/target-step';
import { printsStep } from '../artwork/prints-step';
import { editStep } from '../changes/many/edit-step';
import { undoStep } from '../changes/undo/undo-step';
import { exportStep } from '../exporting/export-step';
import { gatherStep } from '../gathering/gather-step';
import { surveyStep } from '../gathering/survey-step';
import { checkStep } from '../importing/check-step';
import { importStep } from '../importing/import-step';
import { lotsStep } from '../kits/lots-step';
import { pricingStep } from '../kits/pricing-step';
import { publishStep } from '../outbox/publish-step';
import { photosStep } from '../photos/add-dropped';
import { lookStep } from '../photos/look-step';
import type { TakeStep } from '../records/tasks/work-on-task';

/** The list of kinds of tasks, each with its step; a new one is a file of its own and a line here. */
export const steps: Record<TaskRow['kind'], TakeStep> = {
  edit: (task, holder) => editStep(task, holder),
  undo: undoStep,
  publish: publishStep,
  recheck: recheckStep,
  target: targetStep,
  export: exportStep,
  check: checkStep,
  import: importStep,
  survey: surveyStep,
  gather: gatherStep,
  photos: photosStep,
  look: lookStep,
  pricing: pricingStep,
  lots: lotsStep,
  prints: printsStep,
};
