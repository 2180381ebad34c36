import { readFileSync } from 'node:fs';

/** Memory that a process really holds, in megabytes (proc(5), VmRSS); null of one that is down just now. */
export const memoryOf = (pid) => {
  try {
    return Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1_024;
  } catch {
    return null;
  }
};
