/** The text of a file as it was written: in UTF-8, in UTF-16 where it begins with its mark or every other byte is nothing, else in Windows-1252. */
export async function fileText(file: Blob): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  const [first, second] = bytes;
  const utf16 =
    (first === 0xff && second === 0xfe) || (bytes.length > 1 && second === 0 && first !== 0)
      ? 'utf-16le'
      : (first === 0xfe && second === 0xff) || (bytes.length > 1 && first === 0 && second !== 0)
        ? 'utf-16be'
        : undefined;
  if (utf16) {
    return new TextDecoder(utf16).decode(bytes);
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
