/** Whether two values say the same: whatever the order of their members. */
export function isSame(one: unknown, other: unknown): boolean {
  if (one === other || ((one ?? null) === null && (other ?? null) === null)) {
    return true;
  }
  if (typeof one !== 'object' || typeof other !== 'object' || one === null || other === null) {
    return false;
  }
  if (Array.isArray(one) !== Array.isArray(other)) {
    return false;
  }
  const [a, b] = [one as Record<string, unknown>, other as Record<string, unknown>];
  const keys = Object.keys(a);
  return keys.length === Object.keys(b).length && keys.every((key) => key in b && isSame(a[key], b[key]));
}
