import type { Hash } from "../content/encode.js";
import { DrawerError } from "../content/error.js";
import { changeOf, type Edit, type OperationName, type ValueEdit } from "./change.js";
import { newId } from "./ids.js";
import { Conflict, type Commit, type Store } from "./store.js";

/** What an act is to do: edits of entries, and of the drawer's small values. */
export interface Plan {
  readonly edits: readonly Edit[];
  readonly values?: readonly ValueEdit[];
  /** The bytes of the contents that come, by hash. */
  readonly contents?: ReadonlyMap<Hash, Uint8Array>;
}

/** How often an act is planned again when others keep changing the drawer under it. */
const ATTEMPTS = 200;

/** How many edits one change holds at most; a larger act is written as several that belong together. */
const LARGEST = 1000;

/** Plans an act and commits it; again, from the start, whenever somebody else came between. */
export async function perform(
  store: Store,
  drawer: string,
  operation: OperationName,
  plan: () => Promise<Plan>,
): Promise<void> {
  await retryOnConflict(drawer, async () => {
    const planned = await plan();
    if (planned.edits.length > 0 || planned.values?.length)
      await store.commit(commitsOf(planned, drawer, operation));
  });
}

/** Tries something again for as long as others come between. */
export async function retryOnConflict(drawer: string, attempt: () => Promise<void>): Promise<void> {
  for (let tried = 1; ; tried++) {
    try {
      return await attempt();
    } catch (error) {
      if (!(error instanceof Conflict)) throw error;
      if (tried === ATTEMPTS) {
        throw new DrawerError(
          "conflict",
          `The drawer “${drawer}” is being changed by others without a pause. Try again.`,
          { cause: error },
        );
      }
      await new Promise((resolve) => setTimeout(resolve, Math.random() * Math.min(tried, 20)));
    }
  }
}

function commitsOf(
  { edits, values, contents = new Map() }: Plan,
  drawer: string,
  operation: OperationName,
): Commit[] {
  if (edits.length <= LARGEST) {
    return [
      { change: { ...changeOf(drawer, operation), edits, ...(values?.length && { values }) }, contents },
    ];
  }
  const groupId = newId();
  return Array.from({ length: Math.ceil(edits.length / LARGEST) }, (_, index) => ({
    change: {
      ...changeOf(drawer, operation),
      groupId,
      part: index + 1,
      edits: edits.slice(index * LARGEST, (index + 1) * LARGEST),
      ...(index === 0 && values?.length && { values }),
    },
    contents: index === 0 ? contents : new Map(),
  }));
}
