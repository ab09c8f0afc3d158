/** What the grids begin with: a small ringing sheet. */
export const ROWS = [
  { species: "Chiffchaff", ride: "North", count: "14" },
  { species: "Willow warbler", ride: "Middle", count: "6" },
  { species: "Goldcrest", ride: "North", count: "2" },
  { species: "", ride: "", count: "" },
  { species: "", ride: "", count: "" },
];

/** Its columns: by what a row calls them, and what stands above them. */
export const COLUMNS = { species: "Species", ride: "Ride", count: "Count" } as const;
