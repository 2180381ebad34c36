import { z } from 'zod';
import { routineFileSchema, routineSchema } from '../../core/edit';
import { appliedEditSchema } from '../../services/changes/many/apply-edit';
import { removeKept } from '../../services/records/removed/remove-kept';
import { findRoutines, foundRoutineSchema } from '../../services/routines/find-routines';
import { runRoutine } from '../../services/routines/run-routine';
import { changeRoutine, changeRoutineSchema, saveRoutine } from '../../services/routines/save-routine';
import { readRoutineFile, writeRoutineFile } from '../../services/routines/share-routine';
import { done, endpoint } from '../endpoint';

const made = z.object({ id: z.number() });

/** Series of steps that are kept under a name. */
export const routinesEndpoints = [
  endpoint({
    method: 'GET',
    path: '/routines',
    tag: 'Routines',
    role: 'seller',
    summary: 'Kept series of steps, each with its filter, its plan and its last runs',
    answer: z.object({ routines: z.array(foundRoutineSchema) }),
    run: async () => ({ routines: await findRoutines() }),
  }),
  endpoint({
    method: 'POST',
    path: '/routines',
    tag: 'Routines',
    role: 'seller',
    summary: 'Keep a series of steps under a name',
    body: routineSchema,
    answer: made,
    run: ({ actor, body }) => saveRoutine(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/routines/file',
    tag: 'Routines',
    role: 'seller',
    summary: 'Take a routine over from a file of another shop',
    body: routineFileSchema,
    answer: made,
    run: ({ actor, body }) => readRoutineFile(actor, body),
  }),
  endpoint({
    method: 'PATCH',
    path: '/routines/{id}',
    tag: 'Routines',
    role: 'seller',
    summary: 'Change its name, filter, steps, or its plan',
    body: changeRoutineSchema,
    answer: done,
    run: ({ actor, params, body }) => changeRoutine(actor, params.id, body),
  }),
  endpoint({
    method: 'DELETE',
    path: '/routines/{id}',
    tag: 'Routines',
    role: 'seller',
    summary: 'Forget a routine; what it changed stays',
    answer: done,
    run: ({ actor, params }) => removeKept(actor, 'routine', params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/routines/{id}/run',
    tag: 'Routines',
    role: 'seller',
    summary: 'Carry a routine out now',
    answer: appliedEditSchema,
    run: ({ actor, params }) => runRoutine(actor, params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/routines/{id}/file',
    tag: 'Routines',
    role: 'seller',
    summary: 'A routine as a file for another shop',
    answer: routineFileSchema,
    run: ({ params }) => writeRoutineFile(params.id),
  }),
];
