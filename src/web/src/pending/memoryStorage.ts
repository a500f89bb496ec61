/** What a browser keeps beyond the window, for tests: as `localStorage`, its keys are its own properties. */
export class MemoryStorage implements Storage {
  [name: string]: unknown;

  get length() {
    return Object.keys(this).length;
  }

  clear() {
    Object.keys(this).forEach((name) => delete this[name]);
  }

  getItem(name: string) {
    return (this[name] as string | undefined) ?? null;
  }

  key(index: number) {
    return Object.keys(this)[index] ?? null;
  }

  removeItem(name: string) {
    delete this[name];
  }

  setItem(name: string, value: string) {
    this[name] = value;
  }
}
