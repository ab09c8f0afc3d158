/** The upper ends of the times that are counted, in seconds. */
const BUCKETS = [0.005, 0.025, 0.1, 0.5, 2.5];

/** What a hub counts of what it is asked, as Prometheus reads it (its text format, version 0.0.4). */
export class Metrics {
  readonly #requests = new Map<string, number>();
  readonly #buckets = BUCKETS.map(() => 0);
  #count = 0;
  #seconds = 0;
  #listening = 0;

  /** Notes a request: what was asked, the status of the answer, and how long it took in milliseconds. */
  note(asked: string, status: number, took: number): void {
    const label = `method="${asked.split(" ")[0]}",what="${asked.split(" ")[1]!.replace(/[^\w-]/g, "_")}",status="${status}"`;
    this.#requests.set(label, (this.#requests.get(label) ?? 0) + 1);
    const seconds = took / 1000;
    this.#count++;
    this.#seconds += seconds;
    BUCKETS.forEach((end, at) => {
      if (seconds <= end) this.#buckets[at]!++;
    });
  }

  /** Notes that somebody listens to news, or does so no more. */
  listening(step: 1 | -1): void {
    this.#listening += step;
  }

  /** All that is counted, with how many there are of what. */
  text(counts: Readonly<Record<string, number>>): string {
    const lines = [
      "# TYPE drawer_hub_requests_total counter",
      ...[...this.#requests].map(([label, count]) => `drawer_hub_requests_total{${label}} ${count}`),
      "# TYPE drawer_hub_request_seconds histogram",
      ...BUCKETS.map((end, at) => `drawer_hub_request_seconds_bucket{le="${end}"} ${this.#buckets[at]}`),
      `drawer_hub_request_seconds_bucket{le="+Inf"} ${this.#count}`,
      `drawer_hub_request_seconds_sum ${this.#seconds}`,
      `drawer_hub_request_seconds_count ${this.#count}`,
      "# TYPE drawer_hub_listening gauge",
      `drawer_hub_listening ${this.#listening}`,
    ];
    for (const [name, count] of Object.entries(counts))
      lines.push(`# TYPE drawer_hub_${name} gauge`, `drawer_hub_${name} ${count}`);
    return `${lines.join("\n")}\n`;
  }
}
