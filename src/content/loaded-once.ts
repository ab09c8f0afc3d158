/**
 * Something that is loaded when it is first asked for, such as a module. Afterwards it is there without the loader being asked, which
 * takes a tenth of a millisecond each time. What could not be loaded is tried again when it is next asked for.
 */
export function loadedOnce<Loaded>(load: () => Promise<Loaded>): () => Promise<Loaded> {
  let loading: Promise<Loaded> | undefined;
  return () => {
    loading ??= load().catch((error: unknown) => {
      loading = undefined;
      throw error;
    });
    return loading;
  };
}
