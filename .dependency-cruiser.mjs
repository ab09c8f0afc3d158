/** The rooms, from the ground up. A room imports only from itself and from rooms above it in this list. */
const ROOMS = [
  "messages",
  "content",
  "formats",
  "compose",
  "drawer",
  "stores",
  "files",
  "sync",
  "desktop",
  "page",
  "window",
  "hub",
  "cli",
];
/** The parts of rooms that stand above each other too. */
const PARTS = {
  desktop: ["drivers", "jobs"],
  page: ["places", "capture", "binding", "element"],
};

const inOrder = (folders, within) =>
  folders.slice(0, -1).map((folder, floor) => ({
    name: `${folder} stands above ${folders.slice(floor + 1).join(", ")}`,
    severity: "error",
    from: { path: `^src/${within}${folder}/` },
    to: { path: `^src/${within}(?:${folders.slice(floor + 1).join("|")})/` },
  }));

/** How the source hangs together: `npm run lint` holds it. Types count too. */
export default {
  forbidden: [
    { name: "no circle of files", severity: "error", from: { path: "^src/" }, to: { circular: true } },
    ...inOrder(ROOMS, ""),
    ...Object.entries(PARTS).flatMap(([room, parts]) => inOrder(parts, `${room}/`)),
    {
      name: "drivers know no drawers",
      severity: "error",
      from: { path: "^src/desktop/drivers/" },
      to: { path: "^src/(?:drawer|stores|compose)/" },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: { extensions: [".ts", ".js"], conditionNames: ["import", "types"] },
  },
};
