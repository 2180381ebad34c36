/**
 * Sends a file as the body, and says how far it has come (0 to 1).
 * @returns the number that it got, or what is wrong with it
 */
export function sendFile(
  address: string,
  file: Blob,
  name: string,
  progress: (share: number) => void,
): Promise<{ id: number } | { problem: string }> {
  return new Promise((resolve) => {
    // Not `fetch`, which does not tell how much has been sent.
    const request = new XMLHttpRequest();
    request.open('POST', address);
    request.setRequestHeader('content-type', 'application/octet-stream');
    request.setRequestHeader('x-file-name', encodeURIComponent(name));
    request.upload.onprogress = ({ loaded, total }) => progress(total ? loaded / total : 0);
    request.onerror = () => resolve({ problem: `${name} did not arrive; try again` });
    request.onload = () => {
      let body: { id?: number; title?: string; fix?: string } = {};
      try {
        body = JSON.parse(request.responseText) as typeof body; // our own answer, or problem details
      } catch {
        // Something in between answered: said below.
      }
      if (typeof body.id === 'number') resolve({ id: body.id });
      else resolve({ problem: [body.title ?? `${name} was not taken`, body.fix].filter(Boolean).join('. ') });
    };
    request.send(file);
  });
}
