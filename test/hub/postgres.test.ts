import { spawn } from "node:child_process";
import { resolve } from "node:path";
import { postgresPrograms, startPostgres } from "../../scripts/postgres.mjs";
import { commandHome } from "../support/command";
import { isFull } from "../support/counts";
import { startHub, type HubProcess } from "../support/hub";

const isThere = postgresPrograms() !== undefined || process.env["CI"] !== undefined;
if (!isThere) console.log("Skipped: hubs over PostgreSQL, which is not installed.");

(isThere ? describe : describe.skip)("two hub processes over one PostgreSQL", () => {
  const desk = commandHome();
  const laptop = commandHome();
  let postgres: ReturnType<typeof startPostgres>;
  let hubs: HubProcess[];
  beforeAll(async () => {
    postgres = startPostgres();
    hubs = [
      await startHub(["--port", "0", "--postgres"], postgres.env),
      await startHub(["--port", "0", "--postgres"], postgres.env),
    ];
    await desk.drawer(["collect"], "First wheatear on the seawall");
    const invited = await desk.all(`devices invite --json --hub ${hubs[0]!.address} --name desk`);
    const { invitation } = JSON.parse(invited) as { invitation: string };
    // The laptop meets the other process.
    const there = invitation.replace(hubs[0]!.address, hubs[1]!.address);
    expect((await laptop.drawer(["devices", "join", "--name", "laptop"], there)).code).toBe(0);
  });
  afterAll(async () => {
    const codes = await Promise.all(hubs.map((hub) => hub.stop()));
    postgres.stop();
    expect(codes).toEqual([0, 0]);
  });

  const texts = async (home: typeof desk) =>
    (await home.snippets("list --limit all")).map(({ text }) => text);

  test("one hears of what came to the other", async () => {
    const child = spawn(process.execPath, [resolve("dist/bin/main.js"), "sync", "--follow"], {
      env: { ...process.env, DRAWER_HOME: laptop.home() },
      stdio: ["ignore", "pipe", "ignore"],
    });
    const gone = new Promise<number | null>((settle) => child.once("exit", settle));
    await new Promise((settle) => child.stdout.once("data", settle));
    await desk.drawer(["collect"], "Heard by the other");
    await desk.all("sync");
    while (!(await texts(laptop)).includes("Heard by the other"))
      await new Promise((settle) => setTimeout(settle, 50));
    child.kill("SIGTERM");
    expect(await gone).toBe(0);
  });

  test("what was told is there when the database was stopped at any moment, and started again", async () => {
    const said: string[] = [];
    for (let turn = 0; turn < (isFull ? 60 : 2); turn++) {
      const home = turn % 2 === 0 ? desk : laptop;
      said.push(`Turn ${turn}`);
      await home.drawer(["collect"], said.at(-1));
      const exchange = home.drawer(["sync"]);
      await new Promise((settle) => setTimeout(settle, (turn * 137) % 800));
      postgres.restart();
      const { code, err } = await exchange;
      if (code !== 0) expect(err).toContain("Nothing is lost");
    }
    for (const home of [desk, laptop, desk]) await home.all("sync");
    expect(await texts(laptop)).toEqual(await texts(desk));
    expect(await texts(desk)).toEqual(expect.arrayContaining(said));
  });
});
