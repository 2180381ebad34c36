import { cleanRichText } from './clean-rich-text';

test.each([
  ['<p onclick="x()">Fine</p>', '<p>Fine</p>'],
  ['<script>alert(1)</script>text', 'text'],
  ['<a href="javascript:x()">y</a>', '<a>y</a>'],
  ['<a href="https://a.example">y</a>', '<a href="https://a.example">y</a>'],
  ['<img src=x onerror=y>', ''],
  ['<style>p{}</style><b>bold</b>', '<b>bold</b>'],
  ['<p class="MsoNormal"><span style="x">from a word processor</span></p>', '<p>from a word processor</p>'],
])('%s becomes %s', (dirty, clean) => expect(cleanRichText(dirty)).toBe(clean));

test('cleaning twice is the same as once', () => {
  const once = cleanRichText('<div><p>a<br>b</p><ul><li>c</li></ul>&amp; d</div>');
  expect(cleanRichText(once)).toBe(once);
});
