/** The parts of css-tree that are loaded by themselves, without its dictionary of properties. */
declare module "css-tree/parser" {
  export { parse as default } from "css-tree";
}
declare module "css-tree/generator" {
  export { generate as default } from "css-tree";
}
