import { z } from 'zod';
import type { Role } from '../core/access';
import { formats } from '../files';
import type { Cell, ListFile } from '../services/lists/list-file';
import { type ParamsOf, streamed } from './endpoint';
import { fileResponse } from './file-response';

const formatSchema = z.object({ format: z.enum(['csv', 'xlsx', 'json', 'ndjson', 'xml']).default('csv') });
type Format = z.output<typeof formatSchema>;

const text = (cell: Cell): string => (cell === null || cell === undefined ? '' : String(cell));

/** Rows of which the first was read already, as texts; each with a cell for every column. */
async function* fromFirst(
  width: number,
  first: IteratorResult<readonly Cell[]>,
  rest: AsyncIterator<readonly Cell[]>,
): AsyncGenerator<string[]> {
  for (let now = first; !now.done; now = await rest.next()) {
    const { value } = now;
    yield Array.from({ length: width }, (_, at) => text(value[at]));
  }
}

/** A list as a file of any format: the same filters as its page, without pages. */
export const listEndpoint = <P extends `${string}/file`, S extends z.ZodRawShape>({
  path,
  tag,
  role = 'seller',
  summary,
  query,
  list,
}: {
  path: P;
  tag: string;
  role?: Role;
  /** What is listed. */
  summary: string;
  query: z.ZodObject<S>;
  list: ListFile<ParamsOf<P> & z.output<z.ZodObject<S>>>;
}) =>
  streamed({
    path,
    tag,
    role,
    summary: `${summary}, as a file`,
    query: query.extend(formatSchema.shape),
    media: 'application/octet-stream',
    answer: z.string(),
    run: async ({ params, query: given }) => {
      const { format, ...filter } = given as Format & z.output<z.ZodObject<S>>; // by the schema just made
      const rows = list
        .rows({ ...params, ...filter } as unknown as ParamsOf<P> & z.output<z.ZodObject<S>>) // the two of them
        [Symbol.asyncIterator]();
      // What cannot be listed is told before a file has begun.
      const first = await rows.next();
      const { write, mime, ending } = formats[format];
      return fileResponse(write(list.columns, fromFirst(list.columns.length, first, rows), {}), {
        mime,
        name: `${list.name}.${ending}`,
      });
    },
  });
