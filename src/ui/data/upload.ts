/** Sends a file under its name; null is no answer at all. */
export const sendFile = (
  address: string,
  file: Blob,
  name: string,
  method: 'POST' | 'PUT' = 'POST',
): Promise<Response | null> =>
  fetch(address, {
    method,
    headers: { 'content-type': file.type || 'application/octet-stream', 'x-file-name': encodeURIComponent(name) },
    body: file,
  }).catch(() => null);

/** What the server said about a file that was not taken; null when it was. */
export async function uploadPhoto(address: string, file: Blob, name: string): Promise<string | null> {
  const answer = await sendFile(address, file, name);
  return answer?.ok ? null : problemOf(answer, name);
}

/** What is made of a file that is kept by itself, or why it was not taken. */
export async function keepFile<T>(address: string, file: File): Promise<{ kept: T } | { problem: string }> {
  const answer = await sendFile(address, file, file.name);
  // the endpoint's answer
  return answer?.ok ? { kept: (await answer.json()) as T } : { problem: await problemOf(answer, file.name) };
}

/** What the server said of a file that it did not take; null is no answer at all. */
export async function problemOf(answer: Response | null, name: string): Promise<string> {
  const body = (await answer?.json().catch(() => null)) as { title?: string; fix?: string } | null; // problem details, if anything
  return body?.title ? `${body.title}. ${body.fix ?? ''}` : `${name} did not arrive; add it again`;
}

/**
 * Sends many files one after the other, in the order in which they were chosen; the page stays usable meanwhile.
 * @returns why single files were refused
 */
export async function uploadAll(
  address: string,
  files: File[],
  progress: (done: number) => void,
  stopped: () => boolean,
): Promise<string[]> {
  const refused: string[] = [];
  for (const [index, file] of files.entries()) {
    if (stopped()) break;
    progress(index);
    const problem = await uploadPhoto(address, file, file.name);
    if (problem) refused.push(problem);
  }
  return refused;
}
