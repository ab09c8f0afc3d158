import { spawn, spawnSync } from "node:child_process";
import { commandHome } from "../support/command";
import {
  copyWithXclip,
  display,
  inBackground,
  onDesktop,
  pause,
  takenByXclip,
  until,
} from "../support/desktop";

/** So long after an offer a program that is not in front pastes, and does not only look. */
const LATER = 600;
const TAKING = "test/support/taking-program.mjs";

onDesktop("a deal on the clipboard", () => {
  display();
  const { drawer, all, fresh } = commandHome();
  const offered = () => takenByXclip("UTF8_STRING").toString();
  /** What a paste takes; then the next is there. */
  const paste = async () => {
    await pause(LATER);
    const text = offered();
    await pause(400);
    return text;
  };
  beforeEach(async () => {
    fresh();
    for (const bird of ["wren", "tern", "knot"]) await drawer(["collect"], bird);
  });

  test("each paste brings the next; a look does not; at the end nothing is there, and nobody is left", async () => {
    const history = spawn(process.execPath, [TAKING, "history"], { env: { ...process.env } });
    let seen = "";
    history.stdout.setEncoding("utf8").on("data", (text: string) => (seen += text));
    await until(
      () => seen,
      (text) => text.includes("ready"),
    );
    /** Waits until it is offered: the history has taken it. */
    const isThere = (bird: string) =>
      until(
        () => seen,
        (text) => text.includes(bird),
      );
    expect(await all("deal all --to clipboard")).toMatch(
      /^Dealing 3 snippets on the clipboard\. The first is there/,
    );
    // A history takes each at once, and programs ask for the names of what there is.
    for (let look = 0; look < 3; look++) takenByXclip("TARGETS");
    await pause(1200);
    expect(await all("deal")).toBe("On the clipboard: 1 of 3, “wren”.\n");
    expect(await paste()).toBe("wren");
    // One paste asks for several forms, several times.
    await isThere("tern");
    await pause(LATER);
    const words = [TAKING, "paste", "TARGETS", "text/html", "UTF8_STRING", "text/html"];
    const { status, stderr } = spawnSync(process.execPath, words, {
      env: { ...process.env },
      encoding: "utf8",
    });
    expect({ status, stderr }).toEqual({ status: 0, stderr: "" });
    await isThere("knot");
    expect(await paste()).toBe("knot");
    await until(inBackground, (names) => names.length === 0);
    expect([offered(), await all("deal")]).toEqual(["", "All have been handed out.\n"]);
    history.kill();
    expect(seen).toMatch(/^ready\nwren\ntern\nknot\n/);
  });

  test("next and back move it by hand, and another program's copy ends it", async () => {
    await all("deal 3 2 1 --to clipboard");
    expect((await drawer(["next"])).err).toBe("On the clipboard: 2 of 3, “tern”.\n");
    expect((await drawer(["back"])).err).toBe("On the clipboard: 1 of 3, “knot”.\n");
    expect(await paste()).toBe("knot");
    expect(JSON.parse((await drawer(["next", "--json"])).out)).toMatchObject({
      number: 3,
      of: 3,
      block: { format: "text", text: "wren" },
    });
    await until(inBackground, (names) => names.join() === "dealer");
    copyWithXclip("UTF8_STRING", { text: "something else" });
    await until(inBackground, (names) => names.length === 0);
    // It is not lost: what was next still is, and can be put there again.
    expect([offered(), await all("deal")]).toEqual(["something else", "On the clipboard: 3 of 3, “wren”.\n"]);
    // At the end what Drawer offers is taken off, and what another program has copied is not.
    expect((await drawer(["next"])).err).toBe("All have been handed out.\n");
    expect(offered()).toBe("something else");
    await all("place 1 --as bullets --to clipboard");
    expect((await drawer(["next"])).err).toBe("All have been handed out.\n");
    expect(offered()).toBe("");
  });

  test("several forms are given in one request, and count as one paste", async () => {
    await all("deal 1 2 --to clipboard");
    await pause(LATER);
    const words = [TAKING, "multiple", "UTF8_STRING", "text/html", "image/png", "TARGETS"];
    const got = JSON.parse(
      spawnSync(process.execPath, words, { env: { ...process.env }, encoding: "utf8" }).stdout,
    ) as Record<string, string | null>;
    expect(got).toMatchObject({ UTF8_STRING: "wren", "image/png": null });
    expect(got["text/html"]).toMatch(/>wren$/);
    await pause(400);
    expect(await all("deal")).toBe("On the clipboard: 2 of 2, “tern”.\n");
  });

  test("what it cannot do is refused in a sentence", async () => {
    const refused = async (...words: string[]) => {
      const { code, err } = await drawer(words);
      return [code, err];
    };
    expect(await refused("deal", "--to", "clipboard")).toEqual([2, expect.stringContaining("with a pick")]);
    expect(await refused("deal", "1", "--to", "x.txt")).toEqual([
      2,
      expect.stringContaining("drawer deal PICK"),
    ]);
    expect(await refused("deal", "9", "--to", "clipboard")).toEqual([
      1,
      expect.stringContaining("no snippet 9"),
    ]);
  });
});
