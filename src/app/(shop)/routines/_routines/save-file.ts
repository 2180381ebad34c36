/** Hands a text to the browser as a file. */
export function saveFile(name: string, text: string): void {
  const address = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = address;
  link.download = name.replace(/[^\p{L}\p{N} ._-]+/gu, '-');
  link.click();
  URL.revokeObjectURL(address);
}
