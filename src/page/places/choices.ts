import type { Placing } from "./place.js";

/** Choices of a form: what is chosen in them, set as a user does. */

/** Chooses an option. */
export function setChosen(select: HTMLSelectElement, option: HTMLOptionElement): Placing {
  const before = select.selectedIndex;
  const choose = (index: number) => {
    select.selectedIndex = index;
    tell(select);
  };
  choose(option.index);
  return {
    async takeBack() {
      if (!select.isConnected || select.selectedIndex !== option.index) return false;
      choose(before);
      return true;
    },
  };
}

/** Checks or unchecks a box, or chooses one of several radio buttons. */
export function setChecked(box: HTMLInputElement, isChecked: boolean): Placing {
  const root = box.getRootNode() as Document | ShadowRoot;
  const before = box.type === "radio" ? checkedOf(box, root) : box.checked;
  if (box.checked !== isChecked) box.click();
  return {
    async takeBack() {
      if (!box.isConnected || box.checked !== isChecked) return false;
      if (typeof before === "boolean") {
        if (box.checked !== before) box.click();
      } else if (before) before.click();
      else {
        box.checked = false;
        tell(box);
      }
      return true;
    },
  };
}

/** The button of a group that is chosen. */
function checkedOf(box: HTMLInputElement, root: Document | ShadowRoot): HTMLInputElement | undefined {
  const group = (box.form ?? root).querySelectorAll<HTMLInputElement>(
    `[type=radio][name="${CSS.escape(box.name)}"]`,
  );
  return [...group].find(({ checked }) => checked);
}

function tell(element: Element): void {
  for (const type of ["input", "change"]) element.dispatchEvent(new Event(type, { bubbles: true }));
}
