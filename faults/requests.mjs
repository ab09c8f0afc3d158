// Requests to the window's server as nobody's own page makes them, with its token and without: none may end it, none is answered as
// a fault of its own (5xx), and none makes it take more memory than its bytes are worth.
import { randomBytes } from "node:crypto";
import { readFileSync } from "node:fs";
import http from "node:http";
import { encode, ExtData } from "@msgpack/msgpack";
import { inFolder, openWindow, random } from "./support.mjs";

const METHODS = [
  ...[
    "entries",
    "size",
    "drawers",
    "oldest",
    "find",
    "positions",
    "gone",
    "privateEntries",
    "contents",
    "commit",
  ],
  ...[
    "revert",
    "changes",
    "forget",
    "value",
    "valueNames",
    "setValue",
    "close",
    "watch",
    "constructor",
    "__proto__",
  ],
];
const KEYS = [
  ...[
    "drawer",
    "kind",
    "document",
    "kept",
    "content",
    "ids",
    "offset",
    "limit",
    "last",
    "terms",
    "about",
    "id",
    "edits",
  ],
  ...[
    "before",
    "after",
    "change",
    "contents",
    "operation",
    "values",
    "everything",
    "until",
    "key",
    "nonce",
    "proof",
  ],
  ...["appends", "offered", "isPrivate", "__proto__", "constructor", "toString"],
];
const PATHS = [
  ...[
    "/store/call",
    "/store/call",
    "/store/call",
    "/store/about",
    "/desktop/into",
    "/desktop/copy",
    "/desktop/deal",
  ],
  ...[
    "/desktop/end-deal",
    "/enter",
    "/again",
    "/",
    "/assets/x.js",
    "/nothing",
    "/store/",
    "/store/call/",
    "//",
    "/%00",
  ],
  ...["/..%2f..%2fetc/passwd", "/store/changes", "/desktop/news"],
];

/** Any value at all, or one that is nearly what is asked for. */
function valueOf(next, depth = 0) {
  const kinds = depth > 4 ? 9 : 13;
  switch (next(kinds)) {
    case 0:
      return null;
    case 1:
      return next(2) === 0;
    case 2:
      return [0, -1, 1.5, 2 ** 53, -(2 ** 31), NaN, Infinity][next(7)];
    case 3:
      return ["main", "", "\0", "x".repeat(next(3000)), "\ud800", "undo", "text"][next(7)];
    case 4:
      return new Uint8Array(randomBytes(next(64)));
    case 5:
      return new ExtData(next(120), new Uint8Array(randomBytes(next(20))));
    case 6:
      return new ExtData(1, encode([[valueOf(next, depth + 1), new Uint8Array(4)]]));
    case 7:
      return KEYS[next(KEYS.length)];
    case 8:
      return new Date(next(1e9));
    case 9:
    case 10:
      return Array.from({ length: next(5) }, () => valueOf(next, depth + 1));
    default:
      return Object.fromEntries(
        Array.from({ length: next(6) }, () => [KEYS[next(KEYS.length - 3)], valueOf(next, depth + 1)]),
      );
  }
}

function bodyOf(next, path) {
  switch (next(8)) {
    case 0:
      return randomBytes(next(200));
    case 1:
      return Buffer.from(
        JSON.stringify(valueOf(next), (_, value) => (typeof value === "bigint" ? 0 : value)) ?? "",
      );
    case 2:
      // Announces far more than it brings.
      return Buffer.from([0xdd, 0xff, 0xff, 0xff, 0xff]);
    case 3:
      return Buffer.alloc(1 + next(200_000), [0x91, 0x81, 0xc7][next(3)]);
    case 4:
      return Buffer.alloc(1 + next(200_000), [0x90, 0x80, 0xc0][next(3)]);
    default: {
      const args = Array.from({ length: next(4) }, () => valueOf(next));
      const whole = Buffer.from(
        encode(path.startsWith("/store") ? [METHODS[next(METHODS.length)], ...args] : (args[0] ?? {})),
      );
      return next(6) === 0 ? whole.subarray(0, next(whole.length + 1)) : whole;
    }
  }
}

/** Sends one request; answers with its status, or 0 when the connection was closed. */
function ask(port, { method, path, headers, body }) {
  return new Promise((done) => {
    const request = http.request(
      { host: "127.0.0.1", port, method, path, headers, timeout: 2000 },
      (response) => {
        // A stream of news goes on for ever.
        if (/event-stream/.test(response.headers["content-type"] ?? "")) response.destroy();
        else response.resume();
        response.once("close", () => done(response.statusCode));
      },
    );
    request.once("error", () => done(0)).once("timeout", () => request.destroy());
    try {
      request.end(body);
    } catch {
      done(0);
    }
  });
}

/** How much memory a process holds, in megabytes. */
function memoryOf(pid) {
  const pages = /VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, "utf8"));
  return Number(pages[1]) / 1024;
}

/** @param count how many requests, half of them with the token */
export const requests = ({ count = 10_000 } = {}) => inFolder((folder) => requestsTo(folder, count));

async function requestsTo(folder, count) {
  const { child, address, said } = await openWindow(folder);
  let hasEnded = false;
  child.once("exit", () => (hasEnded = true));
  const port = Number(new URL(address).port);
  const entered = await fetch(new URL("/enter", address), {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ key: new URL(address).hash.slice(1) }),
  });
  const { token } = await entered.json();
  const next = random(20310408);
  const statuses = new Map();
  const before = memoryOf(child.pid);
  let most = before;
  for (let at = 0; at < count && !hasEnded; at += 8) {
    const some = Array.from({ length: 8 }, () => {
      const path = PATHS[next(PATHS.length)];
      const method = ["POST", "POST", "POST", "GET", "PUT", "DELETE", "OPTIONS", "HEAD"][next(8)];
      const body = method === "GET" || method === "HEAD" ? undefined : bodyOf(next, path);
      const headers = {
        "content-type": ["application/json", "application/vnd.msgpack", "text/plain"][next(3)],
      };
      if (next(2) === 0) headers.authorization = `Bearer ${token}`;
      if (body && next(12) === 0)
        headers["content-length"] = String([2 ** 29, 2 ** 40, body.length][next(3)]);
      return ask(port, { method, path, headers, body });
    });
    for (const status of await Promise.all(some)) statuses.set(status, (statuses.get(status) ?? 0) + 1);
    most = Math.max(most, hasEnded ? 0 : memoryOf(child.pid));
  }
  // Ten who say nothing but how much they bring, and bring it.
  const large = Buffer.alloc(64 * 1024 * 1024);
  await Promise.all(
    Array.from({ length: 10 }, () =>
      ask(port, { method: "POST", path: "/nothing", headers: {}, body: large }),
    ),
  );
  if (!hasEnded) most = Math.max(most, memoryOf(child.pid));
  const wasThere = !hasEnded;
  const faults = [...statuses].filter(([status]) => status >= 500).reduce((sum, [, many]) => sum + many, 0);
  const about = hasEnded
    ? { status: 0 }
    : await fetch(new URL("/store/about", address), { headers: { authorization: `Bearer ${token}` } });
  // It ends when it is told to, whatever it was asked: a stream that nobody reads keeps it from nothing.
  const isOver = await Promise.race([
    new Promise((done) => {
      child.once("exit", () => done(true));
      child.kill();
    }),
    new Promise((done) => setTimeout(done, 20_000, false).unref()),
  ]);
  if (!isOver) child.kill("SIGKILL");
  const grown = Math.round(most - before);
  const kinds = [...statuses]
    .sort(([one], [other]) => one - other)
    .map(([status, many]) => `${many} × ${status || "closed"}`);
  return {
    passed: isOver && wasThere && faults === 0 && about.status === 200 && grown < 400,
    said: `${count} requests to the window that its page does not make, half of them with its token: ${faults} answered as faults, ${wasThere ? "it goes on" : "it ended"}${isOver ? "" : ", and does not end when it is told to"}, ${grown} MB more at most (${kinds.join(", ")})${faults > 0 ? `\n${said()}` : ""}`,
  };
}
