import type { ReceivedArtwork } from '@/services/artwork/receive-artwork';
import { keepFile, uploadPhoto } from '@/ui/data/upload';

const isSidecar = (file: File) => /\.xmp$/i.test(file.name);

/**
 * Sends pictures of artwork one after the other, and then what lies beside them as files of words.
 * @returns how many were taken, why others were not, and what of them was not taken over
 */
export async function bringIn(
  files: File[],
  progress: (done: number) => void,
  stopped: () => boolean,
): Promise<{ taken: number; refused: string[]; notes: string[] }> {
  const refused: string[] = [];
  const notes: string[] = [];
  let taken = 0;
  const inOrder = [...files.filter((one) => !isSidecar(one)), ...files.filter(isSidecar)];
  for (const [index, file] of inOrder.entries()) {
    if (stopped()) {
      notes.push(`Stopped: ${inOrder.length - index} of ${inOrder.length} files were not sent`);
      break;
    }
    progress(index);
    if (isSidecar(file)) {
      const problem = await uploadPhoto('/api/v1/artworks/details', file, file.name);
      if (problem) refused.push(problem);
      continue;
    }
    const answer = await keepFile<ReceivedArtwork>('/api/v1/artworks', file);
    if ('problem' in answer) refused.push(answer.problem);
    else {
      taken++;
      notes.push(...answer.kept.notes);
      if (answer.kept.known) notes.push(`${file.name}: this picture was there already`);
    }
  }
  return { taken, refused, notes };
}
