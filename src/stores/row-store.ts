import { defined } from "../content/defined.js";
import type { Hash } from "../content/encode.js";
import { loadedOnce } from "../content/loaded-once.js";
import type { Notice } from "../content/notice.js";
import { valueEdit, type Change } from "../drawer/model/change.js";
import type { Entry } from "../drawer/model/entry.js";
import type {
  ChangeQuery,
  Commit,
  DrawerSize,
  EntryQuery,
  FindQuery,
  Forgetting,
  Gone,
  OldestQuery,
  Positioned,
  Reverted,
  PrivateEntry,
  Store,
} from "../drawer/store.js";
import type { Engine } from "./engine.js";
import * as queries from "./queries.js";

/** What changes mean for rows; who only asks need not load it. */
export const semantics = loadedOnce(() => import("./semantics.js"));

/** A store over an engine: each question and each change is a job, which the engine does in one transaction. */
export class RowStore implements Store {
  /** @param engine where the rows lie, for what is done with them beside the questions of a store */
  constructor(readonly engine: Engine) {}

  get isReadOnly(): boolean {
    return this.engine.isReadOnly ?? false;
  }

  entries(query: EntryQuery): Promise<Positioned[]> {
    return this.engine.read(() => queries.entries(query));
  }

  size(drawer: string): Promise<DrawerSize> {
    return this.engine.read(() => queries.size(drawer));
  }

  drawers(): Promise<DrawerSize[]> {
    return this.engine.read(() => queries.drawers());
  }

  oldest(query: OldestQuery): Promise<Entry[]> {
    return this.engine.read(() => queries.oldest(query));
  }

  find(query: FindQuery): Promise<Entry[]> {
    return this.engine.read(() => queries.find(query));
  }

  positions(entries: readonly Entry[]): Promise<Map<string, number>> {
    return this.engine.read(() => queries.positions(entries));
  }

  gone(drawer: string): Promise<Gone[]> {
    return this.engine.read(() => queries.gone(drawer));
  }

  privateEntries(): Promise<PrivateEntry[]> {
    return this.engine.read(() => queries.privateEntries());
  }

  contents(hashes: readonly Hash[]): Promise<Map<Hash, Uint8Array>> {
    return this.engine.read(() => queries.contents(hashes));
  }

  async commit(commits: readonly Commit[]): Promise<void> {
    const { commit } = await semantics();
    return this.engine.write(function* () {
      for (const one of commits) yield* commit(one);
    });
  }

  async revert(change: Change, operation: "undo" | "redo"): Promise<Reverted> {
    const { revert } = await semantics();
    const work = change.groupId === undefined ? undefined : "reverting";
    return this.engine.write(() => revert(change, operation), work);
  }

  changes(query: ChangeQuery): Promise<Change[]> {
    return this.engine.read(() => queries.changes(query));
  }

  async forget(what: Forgetting): Promise<{ forgotten: number; trace?: Notice }> {
    const { engine } = this;
    const { forget, noteWiped } = await semantics();
    const isWiped = engine.wipe !== undefined && (what.ids !== undefined || what.everything === true);
    const { count, reach } = await engine.write(() => forget(what, isWiped), "forgetting");
    if (!isWiped) return { forgotten: count };
    const { isWhole, trace } = await engine.wipe!(reach);
    if (isWhole) await engine.write(() => noteWiped());
    return { forgotten: count, ...defined({ trace }) };
  }

  value(drawer: string, name: string): Promise<string | undefined> {
    return this.engine.read(() => queries.value(drawer, name));
  }

  valueNames(drawer: string, beginning: string): Promise<string[]> {
    return this.engine.read(() => queries.valueNames(drawer, beginning));
  }

  async setValue(
    drawer: string,
    name: string,
    before: string | undefined,
    after: string | undefined,
  ): Promise<void> {
    const { setValue } = await semantics();
    return this.engine.write(() => setValue(drawer, valueEdit(name, before, after)));
  }

  watch(listener: () => void): () => void {
    return this.engine.watch(listener);
  }

  close(): Promise<void> {
    return this.engine.close();
  }
}
