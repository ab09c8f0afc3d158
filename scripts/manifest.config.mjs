// What the analyzer of custom elements writes into dist/custom-elements.json: what a page may use, and nothing else.
export default {
  globs: ["src/page/element/snippet-drawer.ts"],
  outdir: "dist",
  litelement: true,
  packagejson: false,
  plugins: [
    {
      name: "public-only",
      packageLinkPhase({ customElementsManifest }) {
        for (const module of customElementsManifest.modules) {
          module.path = "dist/page/element/snippet-drawer.js";
          for (const declaration of module.declarations) {
            const isPublic = ({ name, privacy }) => privacy !== "private" && !name.startsWith("#");
            declaration.members = declaration.members?.filter(isPublic);
            const names = new Set(declaration.members?.map(({ name }) => name));
            declaration.attributes = declaration.attributes?.filter(
              ({ name }) => names.has(name) && name !== "binding",
            );
          }
          for (const entry of module.exports ?? []) entry.declaration.module = module.path;
        }
      },
    },
  ],
};
