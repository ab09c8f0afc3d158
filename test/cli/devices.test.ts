import { spawn } from "node:child_process";
import { readdirSync, readFileSync, statSync } from "node:fs";
import { join, resolve } from "node:path";
import { commandHome } from "../support/command";
import { isFull } from "../support/counts";
import { Network, startHub, type HubProcess } from "../support/hub";

const desk = commandHome();
const laptop = commandHome();
const tablet = commandHome();
const main = resolve("dist/bin/main.js");
type Home = ReturnType<typeof commandHome>;

let hub: HubProcess;
let network: Network;
let address: string;
const data = join(desk.folder, "hub");
beforeAll(async () => {
  hub = await startHub(["--port", "0", "--data", data]);
  network = new Network(() => hub.port);
  address = await network.listen();
});
afterAll(async () => {
  await network.close();
  await hub.stop();
});
beforeEach(() => [desk, laptop, tablet].forEach((home) => home.fresh()));

async function invite(from: Home, ...words: string[]): Promise<string> {
  const answer = JSON.parse(await from.all(["devices invite --json", ...words].join(" "))) as {
    invitation: string;
  };
  return answer.invitation;
}

async function joinAs(home: Home, name: string, invitation: string): Promise<string> {
  const { code, out, err } = await home.drawer(["devices", "join", "--name", name], invitation);
  expect([code, err]).toEqual([0, ""]);
  return out;
}

/** The desk with a group of its own, and others that have joined. */
async function group(...others: [Home, string][]): Promise<void> {
  await desk.drawer(["collect"], "First wheatear on the seawall");
  let first = [`--hub ${address}`, "--name desk"];
  for (const [home, name] of others) {
    await joinAs(home, name, await invite(desk, ...first));
    first = [];
  }
  await desk.all("sync");
}

interface ShownDevice {
  readonly name: string;
  readonly words: string;
}

const devices = async (home: Home): Promise<ShownDevice[]> =>
  (JSON.parse(await home.all("devices --json")) as { devices: ShownDevice[] }).devices;

const texts = async (home: Home) => (await home.snippets("list --limit all")).map(({ text }) => text);

test("another device joins by an invitation, once, and both hold the same, pictures and tables too", async () => {
  await desk.all("collect demo/diary.docx demo/ringing.xlsx demo/sketches/wheatear.png");
  const invitation = await invite(desk, `--hub ${address}`, "--name desk");
  await laptop.drawer(["collect"], "Already on the laptop");
  const said = await joinAs(laptop, "laptop", invitation);
  const [there] = (await devices(laptop)).filter(({ name }) => name === "laptop");
  expect(said).toContain(`This device is “laptop” (${there!.words}).`);
  await desk.all("sync");
  expect((await devices(desk)).map(({ name, words }) => `${name} ${words}`).sort()).toEqual(
    (await devices(laptop)).map(({ name, words }) => `${name} ${words}`).sort(),
  );
  for (const as of ["html", "markdown"]) {
    const there = await laptop.all(`place 1..4 --cite list --out ${as}`);
    expect(there).toBe(await desk.all(`place 1..4 --cite list --out ${as}`));
    expect(there).toContain("Already on the laptop");
  }
  const { code, err } = await tablet.drawer(["devices", "join", "--name", "tablet"], invitation);
  expect([code, err]).toEqual([1, expect.stringContaining("it was used")]);
  const misheard = invitation.replace(/ \w+$/, " taxi12");
  const wrong = await tablet.drawer(["devices", "join", "--name", "tablet"], misheard);
  expect(wrong.err).toContain("“taxi12” is no word of an invitation.");
  // A second group is refused, and so is an exchange of a home that is in none.
  const again = await laptop.drawer(["devices", "join", "--name", "again"], invitation);
  expect(again.err).toContain("in a group of devices at");
  expect((await tablet.drawer(["sync"])).err).toContain("on this device alone");
});

test("what a person takes out leaves everywhere and can be brought back; what leaves by limits leaves there alone", async () => {
  await group([laptop, "laptop"]);
  for (const n of [2, 3, 4, 5]) await desk.drawer(["collect"], `Tern ${n}`);
  await desk.all("sync", "label 2 Tuesday", "discard 3", "sync");
  expect(await laptop.all("sync")).toMatch(/3 snippets came/);
  expect(await texts(laptop)).toEqual(["First wheatear on the seawall", "Tern 2", "Tern 4", "Tern 5"]);
  expect((await laptop.snippets())[1]!.label).toBe("Tuesday");
  await desk.all("undo", "sync");
  await laptop.all("sync");
  expect(await texts(laptop)).toContain("Tern 3");
  // Two are let go of by a limit: here, and not on the desk. What waits for room is told.
  await laptop.all("rules snippets=3 --yes", "sync");
  expect(await texts(laptop)).toHaveLength(3);
  await desk.all("sync");
  expect(await texts(desk)).toHaveLength(5);
  tablet.fresh();
  await tablet.all("rules snippets=2");
  const said = await joinAs(tablet, "tablet", await invite(desk));
  expect(said).toContain("3 snippets of “main” stay on your other devices");
  expect(await texts(tablet)).toEqual(["Tern 4", "Tern 5"]);
  await tablet.all("rules snippets=100", "sync");
  expect(await texts(tablet)).toEqual(await texts(desk));
  // What is emptied for good is nowhere any more.
  await desk.all("empty --for-good", "sync");
  await laptop.all("sync");
  expect([await texts(laptop), await texts(desk)]).toEqual([[], []]);
  expect(await laptop.all("list --gone")).not.toContain("Tern 4");
});

/** Whether planted words stand in some bytes, in one of the forms in which a program might write them. */
function holds(bytes: Buffer, words: string): boolean {
  const forms = [Buffer.from(words), Buffer.from(words, "utf16le"), Buffer.from(words).toString("hex")];
  return forms.some((form) => bytes.includes(form)) || bytes.includes(btoa(words).slice(0, -4));
}

function allBytes(folder: string): Buffer {
  const names = readdirSync(folder, { recursive: true, encoding: "utf8" });
  const files = names.map((name) => join(folder, name)).filter((file) => statSync(file).isFile());
  return Buffer.concat(files.map((file) => readFileSync(file)));
}

test("the hub's files and the network hold no word of what goes through, and what is private stays", async () => {
  const planted = [
    "Zanderfjell wheatear",
    "Zanderfjell label",
    "zanderfjell-diary.txt",
    "Zanderfjell secret",
  ];
  await group([laptop, "Zanderfjell laptop"]);
  await desk.drawer(["collect", "--label", planted[1]!], `${planted[0]} ${"on the seawall ".repeat(1000)}`);
  const file = join(desk.folder, planted[2]!);
  await import("node:fs/promises").then(({ writeFile }) => writeFile(file, "Nothing but a wren."));
  await desk.all(`collect ${file}`);
  await desk.drawer(["collect", "--private"], planted[3]!);
  await desk.all("sync");
  await laptop.all("sync");
  const here = await laptop.snippets();
  expect(here.map(({ label, origin }) => label ?? origin.document)).toEqual([
    undefined,
    ...planted.slice(1, 3),
  ]);
  expect(JSON.stringify(here)).not.toContain(desk.folder);
  const seen = [allBytes(data), Buffer.concat(network.seen)];
  for (const words of [...planted, "Zanderfjell laptop"])
    for (const bytes of seen) expect([words, holds(bytes, words)]).toEqual([words, false]);
  for (const home of [desk, laptop])
    expect(statSync(join(home.home(), "device.json")).mode & 0o777).toBe(0o600);
  // One that is hidden after it went out is withdrawn from the others.
  await desk.all("hide 2", "sync");
  await laptop.all("sync");
  expect(await laptop.all("list")).not.toContain(planted[1]!);
  expect(allBytes(laptop.home()).includes("Zanderfjell wheatear")).toBe(false);
});

test("a device that was removed hears nothing new, keeps what it has, and is told so", async () => {
  await group([laptop, "laptop"], [tablet, "tablet"]);
  await tablet.all("sync");
  expect(await desk.all("devices remove tablet")).toContain("“tablet” is out");
  await desk.drawer(["collect"], "After the tablet was lost");
  await desk.all("sync");
  await laptop.all("sync");
  expect(await texts(laptop)).toContain("After the tablet was lost");
  await tablet.drawer(["collect"], "On the tablet");
  const { code, err } = await tablet.drawer(["sync"]);
  expect([code, err]).toEqual([1, expect.stringContaining("This device was removed from its group")]);
  expect(await texts(tablet)).toEqual(["First wheatear on the seawall", "On the tablet"]);
  expect((await devices(laptop)).map(({ name }) => name).sort()).toEqual(["desk", "laptop"]);
  await tablet.all("devices leave");
  expect(await tablet.all("devices")).toContain("on this device alone");
  expect((await laptop.drawer(["devices", "remove", "tablet"])).err).toContain("There is no device “tablet”");
});

/** `drawer sync --follow` in a home, until it is ended. */
function following({ home }: Home) {
  const child = spawn(process.execPath, [main, "sync", "--follow"], {
    env: { ...process.env, DRAWER_HOME: home() },
    stdio: "pipe",
  });
  let out = "";
  child.stdout.setEncoding("utf8").on("data", (text: string) => (out += text));
  child.stderr.setEncoding("utf8").on("data", (text: string) => (out += text));
  const gone = new Promise<number | null>((settle) => child.once("exit", settle));
  return {
    said: () => out,
    kill: (signal: NodeJS.Signals) => {
      child.kill(signal);
      return gone;
    },
  };
}

async function until(test: () => Promise<boolean> | boolean): Promise<void> {
  while (!(await test())) await new Promise((settle) => setTimeout(settle, 50));
}

test("who follows hears of each act as it is done, goes on when the hub is back, and ends when it is ended", async () => {
  await group([laptop, "laptop"]);
  const followers = [following(desk), following(laptop)];
  await until(() => followers.every((one) => one.said().includes("In step")));
  await desk.drawer(["collect"], "Sandwich terns over the bar");
  await until(async () => (await texts(laptop)).includes("Sandwich terns over the bar"));
  const { port } = hub;
  network.cut(true);
  await hub.stop("SIGKILL");
  await laptop.drawer(["collect"], "While the hub was away");
  await until(() => followers[1]!.said().includes("It is tried again."));
  hub = await startHub(["--port", String(port), "--data", data]);
  network.cut(false);
  await until(async () => (await texts(desk)).includes("While the hub was away"));
  for (const one of followers) expect(await one.kill("SIGTERM")).toBe(0);
});

test("nothing is lost when devices and the hub are killed and the network is cut, again and again", async () => {
  await group([laptop, "laptop"], [tablet, "tablet"]);
  const homes = [desk, laptop, tablet];
  const said: string[] = [];
  let seed = 20_310_408;
  const random = (below: number) => {
    seed = (seed * 1_103_515_245 + 12_345) % 2 ** 31;
    return Math.floor((seed / 2 ** 31) * below);
  };
  for (let turn = 0; turn < (isFull ? 300 : 2); turn++) {
    const home = homes[random(3)]!;
    said.push(`Turn ${turn} ${"of the tide ".repeat(random(2) * 600)}`.trim());
    expect((await home.drawer(["collect"], said.at(-1))).code).toBe(0);
    const child = spawn(process.execPath, [main, "sync"], {
      env: { ...process.env, DRAWER_HOME: home.home() },
      stdio: "ignore",
    });
    const gone = new Promise((settle) => child.once("exit", settle));
    await new Promise((settle) => setTimeout(settle, random(700)));
    const trouble = random(4);
    if (trouble === 0) child.kill("SIGKILL");
    else if (trouble === 1) {
      network.cut(true);
      await gone;
      network.cut(false);
    } else if (trouble === 2) {
      const { port } = hub;
      await hub.stop("SIGKILL");
      await gone;
      hub = await startHub(["--port", String(port), "--data", data]);
    }
    await gone;
  }
  for (const home of [...homes, ...homes, ...homes]) await home.all("sync");
  const all = await Promise.all(homes.map(texts));
  expect(all[1]).toEqual(all[0]);
  expect(all[2]).toEqual(all[0]);
  expect([...all[0]!].sort()).toEqual(["First wheatear on the seawall", ...said].sort());
});
