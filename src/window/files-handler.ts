import { Hono, type Context } from "hono";
import * as v from "valibot";
import type { Recipe } from "../compose/recipe.js";
import { defined } from "../content/defined.js";
import { DrawerError, refusalOf } from "../content/error.js";
import { PUTS } from "../formats/edit.js";
import type { HostFiles } from "../page/binding/host-files.js";
import { MESSAGE, pack, unpackAsked } from "../stores/remote/wire.js";

const DRAWER = { drawer: v.string() };
const FILE = v.object({ path: v.string(), hash: v.string() });

/** What can be asked of the files, and how it is answered. Questions and answers are MessagePack, as those of the store are. */
const QUESTIONS = {
  find: question({ name: v.string(), hash: v.string() }, (files, { name, hash }) => files.find(name, hash)),
  open: question({ ...DRAWER, id: v.string() }, (files, { drawer, id }) => files.open(drawer, id)),
  reread: question({ file: FILE }, (files, { file }) => files.reread(file)),
  put: question(
    {
      file: FILE,
      where: v.object({ spot: v.string(), put: v.exactOptional(v.picklist(PUTS)) }),
      what: v.object({ ...DRAWER, pick: v.string(), recipe: v.record(v.string(), v.unknown()) }),
    },
    // What a recipe may say is checked where it is composed.
    (files, { file, where, what }) =>
      files.put(file, defined(where), { ...what, recipe: what.recipe as Recipe }),
  ),
  lift: question({ file: FILE, spots: v.array(v.string()), ...DRAWER }, (files, { file, spots, drawer }) =>
    files.lift(file, spots, drawer),
  ),
  undo: question(DRAWER, (files, { drawer }) => files.undo(drawer)),
  redo: question(DRAWER, (files, { drawer }) => files.redo(drawer)),
  standings: question(DRAWER, (files, { drawer }) => files.standings(drawer)),
  refresh: question({ ...DRAWER, pick: v.string() }, (files, { drawer, pick }) =>
    files.refresh(drawer, pick),
  ),
};

type Answered = Promise<unknown>;

/** A question of some form; answers nothing to what has another. */
function question<Entries extends v.ObjectEntries>(
  entries: Entries,
  answer: (files: HostFiles, asked: v.InferOutput<v.ObjectSchema<Entries, undefined>>) => Answered,
): (files: HostFiles, asked: unknown) => Answered | undefined {
  const form = v.object(entries);
  return (files, asked) => {
    const read = v.safeParse(form, asked);
    return read.success ? answer(files, read.output) : undefined;
  };
}

/** What the pages ask of the user's files. */
export function filesHandler(files: HostFiles): Hono {
  const app = new Hono();
  for (const [name, answered] of Object.entries(QUESTIONS))
    app.post(`/${name}`, async (context) => {
      const asked = unpackAsked(new Uint8Array(await context.req.arrayBuffer()));
      const answer = answered(files, asked);
      return answer ? packed(context, await answer) : context.text("This is no question about files.", 400);
    });
  app.onError((error, context) => {
    if (!(error instanceof DrawerError)) throw error;
    return context.json(refusalOf(error), 422);
  });
  return app;
}

function packed(context: Context, answer: unknown): Response {
  return context.body(pack(answer ?? null), 200, { "content-type": MESSAGE });
}
