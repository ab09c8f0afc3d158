const RealDate = Date;
afterEach(() => void (globalThis.Date = RealDate));

/** Lets so many milliseconds pass, until the end of the test; counted from the real time. */
export function later(ms: number): void {
  globalThis.Date = class extends RealDate {
    constructor(...given: [] | [string | number]) {
      super(given[0] ?? RealDate.now() + ms);
    }
    static override now(): number {
      return RealDate.now() + ms;
    }
  } as DateConstructor;
}
