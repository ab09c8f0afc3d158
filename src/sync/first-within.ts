/** The first of some, as many as come to so many bytes together at most; one at least, however large it is. */
export function firstWithin<One>(all: readonly One[], bytesOf: (one: One) => number, most: number): One[] {
  let bytes = 0;
  const end = all.findIndex((one) => (bytes += bytesOf(one)) > most);
  return all.slice(0, end < 0 ? all.length : Math.max(1, end));
}
