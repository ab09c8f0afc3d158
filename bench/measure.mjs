/** The median of some numbers. */
export function median(numbers) {
  const sorted = [...numbers].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 ? sorted[middle] : (sorted[middle - 1] + sorted[middle]) / 2;
}

/** Milliseconds that something takes. */
async function time(deed) {
  const start = performance.now();
  await deed();
  return performance.now() - start;
}

/** How long something takes, so many times, in milliseconds. */
export async function spread(deed, runs) {
  const times = [];
  for (let run = 0; run < runs; run++) times.push(await time(deed));
  return times;
}

/**
 * Times something against a baseline, in turn (so that a machine that drifts drifts for both), and prints the ratio:
 * the median of each, and the median of the ratios pair by pair.
 */
export async function compare(name, deed, baseline, { runs = 15, warmup = 3 } = {}) {
  const ours = [];
  const theirs = [];
  for (let run = -warmup; run < runs; run++) {
    const pair = [await time(deed), await time(baseline)];
    if (run < 0) continue;
    ours.push(pair[0]);
    theirs.push(pair[1]);
  }
  const ratio = median(ours.map((ms, index) => ms / theirs[index]));
  const shown = (ms) => (ms < 10 ? ms.toFixed(2) : ms.toFixed(0)).padStart(8);
  console.log(
    `${name.padEnd(78)} ${shown(median(ours))} ms ${shown(median(theirs))} ms   × ${ratio.toFixed(2)}`,
  );
  return ratio;
}

/** Prints the head of a table of comparisons. */
export function head(title) {
  console.log(`\n${title}\n${"".padEnd(78)}        ours    baseline     ratio`);
}
