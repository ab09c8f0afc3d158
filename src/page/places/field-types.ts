/** A field in which one writes. */
export type Field = HTMLInputElement | HTMLTextAreaElement;

/** Types of input in which one writes text, with a caret that a page can see. */
export const WITH_CARET = /^(?:text|search|url|tel)$/;
/** Types in which one writes, with a caret that a page cannot see. */
export const WITHOUT_CARET = /^(?:email|number)$/;
/** Types that hold a value of their own form, which is set as a whole. */
export const WITH_VALUE = /^(?:date|month|week|time|datetime-local|color|range)$/;
