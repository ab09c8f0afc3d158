import { html } from "lit";
import { page } from "../../messages/core/page-sentences.js";
import { BESIDE, type Arrangement } from "./arrangement.js";

/** How far a key moves it, in hundredths of the width. */
const STEP = 2;

/**
 * What one moves to give the list, or what stands beside it, more room: by the mouse, or by the arrows (WAI-ARIA, window splitter).
 */
export function divider(arrangement: Arrangement, host: Element) {
  const isMirrored = () => getComputedStyle(host).direction === "rtl";
  const moved = ({ clientX }: PointerEvent) => {
    const { left, right, width } = host.getBoundingClientRect();
    arrangement.show((100 * (isMirrored() ? clientX - left : right - clientX)) / Math.max(1, width));
  };
  const down = (event: PointerEvent) => {
    const bar = event.currentTarget as HTMLElement;
    bar.focus();
    bar.setPointerCapture(event.pointerId);
    bar.addEventListener("pointermove", moved);
    const up = () => {
      bar.removeEventListener("pointermove", moved);
      arrangement.keep();
    };
    bar.addEventListener("lostpointercapture", up, { once: true });
  };
  const pressed = (event: KeyboardEvent) => {
    const step = { ArrowLeft: STEP, ArrowRight: -STEP }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    arrangement.show(arrangement.beside + (isMirrored() ? -step : step));
    arrangement.keep();
  };
  return html`<div
    class="divider"
    role="separator"
    tabindex="0"
    aria-orientation="vertical"
    aria-label=${page.divider}
    aria-valuemin=${BESIDE.least}
    aria-valuemax=${BESIDE.most}
    aria-valuenow=${Math.round(arrangement.beside)}
    @pointerdown=${down}
    @mousedown=${(event: Event) => event.preventDefault()}
    @keydown=${pressed}
  ></div>`;
}
