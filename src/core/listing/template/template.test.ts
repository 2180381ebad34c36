import fc from 'fast-check';
import { sampleItem } from '../../testing.test-data';
import { chooseTemplate, readConditions, render, type Template, templateFault, variablesOf } from '..';

const template = (id: number, part: Partial<Template> = {}): Template => ({
  id,
  name: `T${id}`,
  conditions: [],
  fields: { footer: `from ${id}` },
  previous: null,
  ...part,
});
const is = (field: string, value: string) => ({ field, op: 'is' as const, value });

describe('which template', () => {
  const item = sampleItem({ supplier: 'Quay Street', location: 'B2' });

  test.each([
    ['is', 'brand', 'brask', true],
    ['is', 'brand', 'orvane', false],
    ['not', 'brand', 'orvane', true],
    ['starts', 'category', 'cameras', true],
    ['starts', 'category', 'lenses', false],
    ['contains', 'keywords', 'analogue', true],
    ['contains', 'title', 'SLR FILM', true],
    ['at-least', 'price', '14900', true],
    ['at-least', 'price', '14901', false],
    ['at-most', 'price', '14900', true],
    ['at-most', 'weightGrams', '899', false],
    ['is', 'attributes.Colour', 'Black', true],
    ['is', 'attributes.Nothing', '', true],
    ['is', 'nothing', 'x', false],
  ] as const)('%s on %s with %j holds: %s', (op, field, value, holds) =>
    expect(
      chooseTemplate([template(1, { conditions: readConditions([{ field, op, value }]) })], item, '2026-11-26') !==
        null,
    ).toBe(holds),
  );

  test('nobody fits: none; nobody asks: the default', () => {
    expect(chooseTemplate([], item, '2026-11-26')).toBeNull();
    expect(chooseTemplate([template(1)], item, '2026-11-26')?.template.id).toBe(1);
  });

  test('more conditions are narrower, exact ones narrower than vague ones, a deeper path than a short one', () => {
    const wide = template(1);
    const vague = template(2, { conditions: [{ field: 'category', op: 'begins', value: 'cam' }] });
    const deeper = template(3, { conditions: [{ field: 'category', op: 'begins', value: 'cameras/slr' }] });
    const exact = template(4, { conditions: [is('supplier', 'Quay Street')] });
    const both = template(5, { conditions: [is('supplier', 'Quay Street'), is('location', 'B2')] });
    const choose = (...all: Template[]) => chooseTemplate(all, item, '2026-11-26')?.template.id;
    expect(choose(wide, vague)).toBe(2);
    expect(choose(wide, vague, deeper)).toBe(3);
    expect(choose(deeper, exact)).toBe(4);
    expect(choose(wide, vague, deeper, exact, both)).toBe(5);
  });

  test('a tie is said, the older one wins', () => {
    const chosen = chooseTemplate(
      [template(1, { conditions: [is('brand', 'Brask')] }), template(2, { conditions: [is('location', 'B2')] })],
      item,
      '2026-11-26',
    );
    expect(chosen).toMatchObject({ template: { id: 1 }, tiedWith: ['T2'] });
  });

  test('items from before a change that was meant for new ones keep the words of before', () => {
    const changed = template(1, { fields: { footer: 'new' }, previous: { untilItem: 10, fields: { footer: 'old' } } });
    expect(chooseTemplate([changed], sampleItem({ id: 10 }), '2026-11-26')?.fields.footer).toBe('old');
    expect(chooseTemplate([changed], sampleItem({ id: 11 }), '2026-11-26')?.fields.footer).toBe('new');
  });
});

describe('variables', () => {
  const fill = (text: string, part: Parameters<typeof sampleItem>[0] = {}, format: 'rich' | 'plain' = 'plain') =>
    render(text, variablesOf(sampleItem(part), 'Grainhouse', 'Its description', format));

  test.each([
    ['{{ brand }} {{ model }}', 'Brask K-2'],
    ['{{ film_format }}', '35 mm'],
    ['{{ attributes.film_format }}', '35 mm'],
    ['{{ price }} {{ currency }}', '149.00 EUR'],
    ['{{ weight }}', '900 g'],
    ['{{ condition | downcase }}', 'very good'],
    ['{{ description }} / {{ shop }}', 'Its description / Grainhouse'],
    ['{% for word in keywords %}{{ word }};{% endfor %}', 'film camera;Film Cameras;slr;analogue;'],
    ['{% if barcode %}yes{% else %}no{% endif %}', 'no'],
    ['{{ nothing | default: "else" }}', 'else'],
    ['no variable at all', 'no variable at all'],
  ])('%j reads %j', (text, expected) => expect(fill(text)).toEqual({ text: expected, problem: null }));

  test.each([
    ['{{ barcode }}', 'barcode'],
    ['{{ harbour }}', 'harbour'],
    ['{{ attributes.tide }}', 'attributes.tide'],
  ])('%j misses %s', (text, what) => expect(fill(text)).toEqual({ text: null, problem: { kind: 'missing', what } }));

  test.each([
    '{% if %}',
    '{{ brand | nosuchfilter }}',
    '{% for %}{% endfor %}',
    '{{ brand',
    '{% include "x" %}',
    "{% render 'x' %}",
    "{% layout 'x' %}",
  ])('%j is broken, and says so', (text) => {
    const { problem } = fill(text);
    expect(problem).toMatchObject({ kind: 'broken', what: expect.stringMatching(/./) });
  });

  test('only what is offered can be reached', () => {
    for (const text of [
      '{{ constructor }}',
      '{{ __proto__ }}',
      '{{ brand.constructor }}',
      '{{ attributes.constructor }}',
      '{{ title.length.constructor }}',
    ])
      expect(fill(text).text ?? '').not.toMatch(/function|object/i);
  });

  test('values are escaped in rich text, the description is not', () => {
    const said = { brand: 'A & <b>', description: '<p>x</p>' };
    expect(render('{{ brand }}', variablesOf(sampleItem(said), 's', '<p>x</p>', 'rich')).text).toBe(
      'A &amp; &lt;b&gt;',
    );
    expect(render('{{ description }}', variablesOf(sampleItem(said), 's', '<p>x</p>', 'rich')).text).toBe('<p>x</p>');
  });

  test('work is bounded', () => {
    const began = Date.now();
    expect(fill('{% for a in (1..100000) %}{% for b in (1..100000) %}x{% endfor %}{% endfor %}').problem?.kind).toBe(
      'broken',
    );
    expect(fill(`{{ "${'x'.repeat(25_000)}" }}`).problem?.kind).toBe('broken');
    expect(Date.now() - began).toBeLessThan(20_000);
  });

  test('a fault is told before anything is filled', () => {
    expect(templateFault('{{ brand }}')).toBeNull();
    expect(templateFault('{% if %}')).toContain('invalid');
  });

  test('whatever is written, filling never throws', () => {
    const piece = fc.constantFrom(
      '{{',
      '}}',
      '{%',
      '%}',
      ' brand ',
      ' if ',
      ' endif ',
      ' for x in ',
      '|',
      '"',
      'text',
      '{{ model }}',
    );
    fc.assert(fc.property(fc.array(piece, { maxLength: 12 }), (parts) => typeof fill(parts.join('')) === 'object'));
  });
});

test('what a template says does not hang on how busy the machine is', () => {
  let now = 0;
  // Between any two parts of the text the machine does something else for a tenth of a second.
  const clock = jest.spyOn(performance, 'now').mockImplementation(() => {
    now += 100;
    return now;
  });
  try {
    const filled = render('{{ brand }}, {{ model }}, {% if brand %}made well{% endif %}.', {
      brand: 'Brask',
      model: 'K-2',
    });
    expect(filled).toEqual({ text: 'Brask, K-2, made well.', problem: null });
  } finally {
    clock.mockRestore();
  }
});

test('loops in loops come to an end', () => {
  const loops = `${'{% for a in keywords %}'.repeat(7)}x${'{% endfor %}'.repeat(7)}`;
  const filled = render(loops, { keywords: Array.from({ length: 60 }, (_, at) => `word ${at}`) });
  expect(filled.problem?.kind).toBe('broken');
});
