/** Gives an element a height in ems, by `ref` of Lit. A strict page allows no style attribute, but a script to do this. */
export function tall(height: number): (element?: Element) => void {
  return (element) => {
    if (element) (element as HTMLElement).style.height = `${height}em`;
  };
}
