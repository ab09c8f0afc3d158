/**
 * When a register was written, on which device: a reading of a hybrid logical clock (Kulkarni and others, 2014), as text that sorts
 * as time does. Milliseconds since 1970 in nine digits of base 36, a count in four, and the device.
 */
export type Stamp = string;

const BASE = 36;
const TIME_DIGITS = 9;
const COUNT_DIGITS = 4;
const MOST = BASE ** COUNT_DIGITS - 1;

/**
 * The stamp of what is written now by a device that has seen `last`: later than that, whatever the clocks say.
 * @param now milliseconds since 1970
 */
export function stampAfter(last: Stamp | undefined, now: number, device: string): Stamp {
  const seen = last === undefined ? { time: 0, count: -1 } : readStamp(last);
  if (now > seen.time) return writeStamp(now, 0, device);
  return seen.count < MOST
    ? writeStamp(seen.time, seen.count + 1, device)
    : writeStamp(seen.time + 1, 0, device);
}

/** The stamp that follows one, of the same device: for what every device works out alike. */
export function followingStamp(stamp: Stamp): Stamp {
  return stampAfter(stamp, 0, stamp.slice(TIME_DIGITS + COUNT_DIGITS + 1));
}

/** Whether text is a stamp. */
export function isStamp(text: string): boolean {
  return /^[0-9a-z]{13}-[\w-]{1,64}$/.test(text);
}

function readStamp(stamp: Stamp): { time: number; count: number } {
  return {
    time: parseInt(stamp.slice(0, TIME_DIGITS), BASE),
    count: parseInt(stamp.slice(TIME_DIGITS, TIME_DIGITS + COUNT_DIGITS), BASE),
  };
}

function writeStamp(time: number, count: number, device: string): Stamp {
  const digits = (value: number, length: number) => value.toString(BASE).padStart(length, "0");
  return `${digits(Math.floor(time), TIME_DIGITS)}${digits(count, COUNT_DIGITS)}-${device}`;
}
