/** An object whose members may be undefined, without those that are: they are optional instead. */
export type Defined<T> = {
  [Name in keyof T as undefined extends T[Name] ? never : Name]: T[Name];
} & { [Name in keyof T as undefined extends T[Name] ? Name : never]?: Exclude<T[Name], undefined> };

/** The members of an object that are defined, for objects whose optional members are absent rather than undefined. */
export function defined<T extends object>(members: T): Defined<T> {
  return Object.fromEntries(Object.entries(members).filter(([, value]) => value !== undefined)) as Defined<T>;
}
