/**
 * Makes room in a column of values: they stand at the beginning of a larger one.
 * @param larger a new one, with room for all of them
 */
export function grown<Values extends { set(values: Values): void }>(values: Values, larger: Values): Values {
  larger.set(values);
  return larger;
}
