import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';

const root = join(__dirname, '..', '..');
const pages = [
  'README.md',
  'CONTRIBUTING.md',
  'CHANGELOG.md',
  ...readdirSync(join(root, 'docs'), { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.md'))
    .map((name) => join('docs', name)),
].map((name) => ({ name, text: readFileSync(join(root, name), 'utf8') }));
const inCode = (text: string) => [...text.matchAll(/`([^`\n]+)`/g)].map((hit) => hit[1] ?? '');
const isThere = (path: string) =>
  ['', '.ts', '.tsx', '.mjs'].some((ending) => existsSync(join(root, `${path}${ending}`)));

/** Written when it is run. */
const made = ['tests/.out/agreement.json'];

test('every link of the documentation leads somewhere', () => {
  const dead = pages.flatMap(({ name, text }) =>
    [...text.matchAll(/\]\((?!https?:|#)([^)#\s]+)(#[^)]*)?\)/g)]
      .map((hit) => hit[1] ?? '')
      .filter((to) => !existsSync(join(root, dirname(name), to)))
      .map((to) => `${name}: ${to}`),
  );
  expect(dead).toEqual([]);
});

test('every program that it names can be run', () => {
  const { scripts } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8')) as {
    scripts: Record<string, string>;
  };
  const missing = pages.flatMap(({ name, text }) =>
    [...text.matchAll(/npm run ([a-z]+)/g)]
      .map((hit) => hit[1] ?? '')
      .filter((script) => !scripts[script])
      .map((script) => `${name}: npm run ${script}`),
  );
  expect(missing).toEqual([]);
});

test('every file and folder that it names is there', () => {
  const missing = pages.flatMap(({ name, text }) =>
    inCode(text)
      // The parts of the sources are called by their own names; several files of a folder stand in braces.
      .filter((one) =>
        /^(src|tests|bin|docs|deploy|demo|marketplaces|core|services|http|ui|db|markets|photos|worker|web|files|app)\/[\w./()[\]-]+$/.test(
          one,
        ),
      )
      .filter((one) => !made.includes(one))
      .filter((path) => !isThere(path.replace(/\/$/, '')) && !isThere(join('src', path.replace(/\/$/, ''))))
      .map((path) => `${name}: ${path}`),
  );
  expect(missing).toEqual([]);
});

test('every command of the house that it shows exists as a program', () => {
  const named = pages.flatMap(({ text }) => [...text.matchAll(/\bbin\/([a-z]+)\.mjs/g)].map((hit) => hit[0]));
  expect(named.filter((path) => !existsSync(join(root, path)))).toEqual([]);
});

test('a version is told: the newest of the changes is the one that is built', () => {
  const { version } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8')) as { version: string };
  const changes = pages.find(({ name }) => name === 'CHANGELOG.md')?.text ?? '';
  expect(/^## (\S+)/m.exec(changes)?.[1]).toBe(version);
});

/** What is said of the demo, and what is put together on the page. */
const elsewhere = ['Grainhouse', 'Add 283 photos to 57 items', 'Change them on the workbench'];

test('what the guide calls by its name stands on a page', () => {
  const even = (text: string) => text.replace(/\s+/g, ' ').replace(/’/g, "'").toLowerCase();
  const sources = even(
    readdirSync(join(root, 'src'), { recursive: true, encoding: 'utf8' })
      .filter((name) => /\.tsx?$/.test(name) && !/\.(test|test-data)\.tsx?$/.test(name))
      .map((name) => readFileSync(join(root, 'src', name), 'utf8'))
      .join('\n'),
  );
  const isOnAPage = (part: string) =>
    new RegExp(
      even(part)
        .replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
        .replace(/\d+/g, '.{1,60}'),
    ).test(sources);
  const named = pages
    .filter(({ name }) => ['README.md', 'docs/user-guide.md'].includes(name))
    .flatMap(({ text }) => [...text.matchAll(/(?<![\w`])_([^_\n]+(?:\n[^_\n]+)?)_(?!\w)/g)])
    .map((hit) => (hit[1] ?? '').replace(/\s+/g, ' '));
  expect(named.length).toBeGreaterThan(200);
  const nowhere = named
    .filter((name) => !elsewhere.includes(name))
    // What changes from case to case stands between dots.
    .flatMap((name) => name.split(/[…·,→]/).map((part) => part.trim()))
    .filter((part) => part !== '' && !isOnAPage(part));
  expect(nowhere).toEqual([]);
});

test('no program of ours has a name that npm calls by itself while it installs', () => {
  const { scripts } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8')) as {
    scripts: Record<string, string>;
  };
  const called = ['dependencies', 'install', 'prepare', 'publish', 'pack', 'uninstall', 'version', 'shrinkwrap'];
  const all = called.flatMap((name) => [name, `pre${name}`, `post${name}`]);
  expect(Object.keys(scripts).filter((name) => all.includes(name))).toEqual([]);
});
