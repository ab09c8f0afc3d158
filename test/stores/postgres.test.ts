import { postgresPrograms, startPostgres } from "../../scripts/postgres.mjs";
import { until } from "../support/desktop";
import { Drawer, readText } from "drawer";
import { openPostgres } from "drawer/postgres";

const isThere = postgresPrograms() !== undefined || process.env["CI"] !== undefined;
if (!isThere) console.log("Skipped: the store in PostgreSQL, which is not installed.");

(isThere ? describe : describe.skip)("drawers in a PostgreSQL server", () => {
  let server: ReturnType<typeof startPostgres>;
  let url: string;
  beforeAll(() => {
    server = startPostgres();
    url = `postgresql://hub@/postgres?host=${server.env.PGHOST}`;
  });
  afterAll(() => server.stop());
  const collect = (drawer: Drawer, text: string) => drawer.collect([{ ...readText(text), origin: {} }]);
  const texts = async (drawer: Drawer) => (await drawer.list()).map(({ entry }) => entry.text);

  test("stores of other schemas are apart; several programs that write at once lose nothing", async () => {
    const stores = await Promise.all(["one", "one", "two"].map((schema) => openPostgres({ schema, url })));
    const [here, there, other] = stores.map((store) => new Drawer(store, "spring")) as [
      Drawer,
      Drawer,
      Drawer,
    ];
    let heard = 0;
    there.watch(() => heard++);
    const all = Array.from({ length: 30 }, (_, n) => `Ring ${n}`);
    await Promise.all(all.map((text, n) => collect(n % 2 === 0 ? here : there, text)));
    await collect(other, "In the other");
    expect((await texts(here)).sort()).toEqual([...all].sort());
    expect(await texts(there)).toEqual(await texts(here));
    expect(await texts(other)).toEqual(["In the other"]);
    const before = heard;
    await collect(here, "Heard of");
    await until(
      () => Promise.resolve(heard),
      (now) => now > before,
    );
    await Promise.all(stores.map((store) => store.close()));
  });

  test("a server that was stopped at any moment is said; what was acknowledged is there afterwards, and it goes on", async () => {
    const store = await openPostgres({ schema: "stopped", url });
    const drawer = new Drawer(store);
    const acknowledged: string[] = [];
    const refusals: string[] = [];
    for (let turn = 0; turn < 3; turn++) {
      const writing = (async () => {
        for (let n = 0; n < 40; n++) {
          const text = `Turn ${turn}, ${n}`;
          await collect(drawer, text).then(
            () => acknowledged.push(text),
            ({ code, message }: { code: string; message: string }) => refusals.push(`${code}: ${message}`),
          );
        }
      })();
      await new Promise((settle) => setTimeout(settle, 60));
      server.restart();
      await writing;
    }
    for (const refusal of refusals) expect(refusal).toMatch(/^store: The drawers in PostgreSQL /);
    const there = await texts(drawer);
    expect(acknowledged.filter((text) => !there.includes(text))).toEqual([]);
    expect(acknowledged.length).toBeGreaterThan(0);
    await collect(drawer, "It goes on");
    expect((await texts(drawer)).at(-1)).toBe("It goes on");
    await store.close();
  });

  test("what is wrong is said in a sentence", async () => {
    await expect(openPostgres({ schema: "Robin's", url })).rejects.toThrow(/cannot be the name of a schema/);
    await expect(openPostgres({ url: "postgresql://hub@/postgres?host=/nowhere" })).rejects.toMatchObject({
      code: "store",
      message: expect.stringMatching(/^The drawers in PostgreSQL cannot be opened: .+ PGHOST/) as string,
    });
  });
});
