/** What puts into fields, editors and grids; a door of its own, so that a page finds its places before that is there. */
export const putting = () => import("./putting/index.js");
