/** What the server said about a file that was not taken; null when it was. */
export async function uploadPhoto(address: string, file: Blob, name: string): Promise<string | null> {
  const answer = await fetch(address, {
    method: 'POST',
    headers: {
      'content-type': file.type || 'application/octet-stream',
      'x-file-name': encodeURIComponent(name),
    },
    body: file,
  }).catch(() => null);
  return answer?.ok ? null : problemOf(answer, name);
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
