import fc from 'fast-check';
import { cutText, fitTags, textLength, toPlainText, toRichText } from '..';

test('paragraphs, line breaks and lists survive as plain text', () => {
  expect(
    toPlainText('<p>One &amp; two<br>three</p><ul><li>a</li><li>b</li></ul><ol><li>first</li><li>second</li></ol>'),
  ).toBe('One & two\nthree\n\n• a\n• b\n\n1. first\n2. second');
});

test('nothing in plain text is markup', () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom('<p>', '</p>', '<b>', '<br>', 'word ', '<script>', '<li>', '<a href="x">')),
      (parts) => !/<[a-z/]/i.test(toPlainText(parts.join(''))),
    ),
  );
});

test('plain text made rich and plain again is the same', () => {
  fc.assert(
    fc.property(fc.array(fc.stringMatching(/^[a-z<>&" ]{1,20}$/), { minLength: 1 }), (lines) => {
      const text = lines
        .map((line) => line.replace(/\s+/g, ' ').trim())
        .filter(Boolean)
        .join('\n\n');
      return toPlainText(toRichText(text)) === text;
    }),
  );
});

test('text is cut at the end of a sentence or word, never inside a word', () => {
  expect(cutText('One sentence here. Another one follows.', 25)).toEqual({ text: 'One sentence here.', cut: true });
  fc.assert(
    fc.property(
      fc.array(fc.stringMatching(/^[a-z]{1,9}$/), { minLength: 2, maxLength: 40 }),
      fc.integer({ min: 12, max: 90 }),
      (words, max) => {
        const { text } = cutText(words.join(' '), max);
        return textLength(text) <= max && text.split(' ').every((one) => words.includes(one));
      },
    ),
  );
});

test('tags: doubles by meaning go, forbidden characters go, what is too long or too many is said', () => {
  expect(
    fitTags(['Film camera', 'film cameras', 'slr!', 'x'.repeat(30), 'third'], {
      max: 2,
      maxLength: 20,
      letters: 'words',
    }),
  ).toEqual({ tags: ['Film camera', 'slr'], lost: ['x'.repeat(30), 'third'] });
});

test('an emoji counts as one character', () => expect(textLength('a📷b')).toBe(3));
