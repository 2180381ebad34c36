import Ajv2020, { type ValidateFunction } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';

type Operation = {
  summary: string;
  responses: Record<string, { content?: Record<string, { schema: object }> }>;
};
export type Description = { paths: Record<string, Record<string, Operation>> };

const prefix = '/api/v1';

/** The HTTP interface as Netting describes it itself, to hold its answers to. */
export class Interface {
  readonly #ajv = addFormats(new Ajv2020({ strict: false, allErrors: true }));
  readonly #checks = new Map<string, ValidateFunction>();
  readonly #operations: { name: string; method: string; pattern: RegExp; operation: Operation }[];

  constructor(description: Description) {
    this.#operations = Object.entries(description.paths).flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, operation]) => ({
        name: `${method.toUpperCase()} ${path.slice(prefix.length)}`,
        method: method.toUpperCase(),
        pattern: new RegExp(`^${path.slice(prefix.length).replace(/\{\w+\}/g, '[^/]+')}$`),
        operation,
      })),
    );
  }

  get names(): string[] {
    return this.#operations.map((one) => one.name);
  }

  #of(method: string, path: string) {
    const bare = path.split('?')[0] ?? path;
    return this.#operations.find((one) => one.method === method && one.pattern.test(bare));
  }

  nameOf(method: string, path: string): string | undefined {
    return this.#of(method, path)?.name;
  }

  /** How it is told that something was done: the media type and what it holds. */
  answerOf(name: string): { media: string; schema: object } {
    const done = Object.entries(this.#operations.find((one) => one.name === name)?.operation.responses ?? {}).find(
      ([status]) => status.startsWith('2'),
    );
    const [content] = Object.entries(done?.[1].content ?? {});
    if (!content) throw new Error(`${name} does not say what it answers`);
    return { media: content[0], schema: content[1].schema };
  }

  /** Where an answer is not as it is described; empty when it is. Refusals are described as problems, not here. */
  faults(method: string, path: string, status: number, body: unknown): string[] {
    const name = this.nameOf(method, path);
    if (!name || status >= 300) return [];
    let check = this.#checks.get(name);
    if (!check) {
      check = this.#ajv.compile(this.answerOf(name).schema);
      this.#checks.set(name, check);
    }
    if (check(body)) return [];
    return (check.errors ?? []).map(
      ({ instancePath, message, params }) => `${name}: ${instancePath || '/'} ${message} ${JSON.stringify(params)}`,
    );
  }
}
