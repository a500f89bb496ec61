import { describe, expect, it } from 'vitest';
import { fileText } from './fileText';

const text = '{"label": "Größe: 3 cm à 5 ½"}';
const utf16 = (mark: boolean, isBig: boolean) => {
  const codes = [...(mark ? [0xfeff] : []), ...[...text].map((letter) => letter.charCodeAt(0))];
  return new Blob([new Uint8Array(codes.flatMap((code) => (isBig ? [code >> 8, code & 255] : [code & 255, code >> 8])))]);
};

describe('the text of a file', () => {
  it.each([
    ['UTF-8', new Blob([text])],
    ['UTF-8 with a mark', new Blob([new Uint8Array([0xef, 0xbb, 0xbf]), text])],
    ['UTF-16 with a mark', utf16(true, false)],
    ['UTF-16 the other way round', utf16(true, true)],
    ['UTF-16 without a mark', utf16(false, false)],
    ['Windows-1252', new Blob([new Uint8Array([...text].map((letter) => letter.charCodeAt(0)))])],
  ])('is read in %s', async (_, file) => {
    expect(await fileText(file)).toBe(text);
  });

  it('may be nothing', async () => {
    expect(await fileText(new Blob([]))).toBe('');
  });
});
