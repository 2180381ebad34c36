import { z } from 'zod';
import { findTasks, taskViewSchema } from '../../services/tasks/find-tasks';
import { resumeTask } from '../../services/tasks/resume-task';
import { stopTask } from '../../services/tasks/stop-task';
import { done, endpoint } from '../endpoint';

/** Long work that is not sending. */
export const tasksEndpoints = [
  endpoint({
    method: 'GET',
    path: '/tasks',
    tag: 'Tasks',
    role: 'packer',
    summary: 'Long work: how far it is, how long still, and what came of it',
    answer: z.object({ tasks: z.array(taskViewSchema) }),
    run: () => findTasks(),
  }),
  endpoint({
    method: 'POST',
    path: '/tasks/{id}/stop',
    tag: 'Tasks',
    role: 'packer',
    summary: 'Stop a task; what it has done stays',
    body: z.object({}).strict(),
    answer: done,
    run: ({ actor, params }) => stopTask(actor, params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/tasks/{id}/resume',
    tag: 'Tasks',
    role: 'packer',
    summary: 'Let a task go on that was stopped or had failed',
    body: z.object({}).strict(),
    answer: done,
    run: ({ actor, params }) => resumeTask(actor, params.id),
  }),
];
