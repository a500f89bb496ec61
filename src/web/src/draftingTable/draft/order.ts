/** As many keys as can be that are in both lists and follow each other in both: the longest increasing subsequence of their places. */
export function staying(before: string[], after: string[]): Set<string> {
  const place = new Map(before.map((key, at) => [key, at]));
  const known = after.filter((key) => place.has(key));
  // For each length, the end of the sequence of that length that ends earliest; and for each key, what is before it in its own.
  const ends: number[] = [];
  const previous: number[] = [];
  known.forEach((key, i) => {
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      [low, high] = place.get(known[ends[middle]!]!)! < place.get(key)! ? [middle + 1, high] : [low, middle];
    }
    previous[i] = low > 0 ? ends[low - 1]! : -1;
    ends[low] = i;
  });
  const stay = new Set<string>();
  for (let at = ends.at(-1) ?? -1; at >= 0; at = previous[at]!) {
    stay.add(known[at]!);
  }
  return stay;
}
