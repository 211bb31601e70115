// Single keys act on the page only while nobody types, and no dialog is open.
const TYPED_IN = 'input:not([type="radio"]):not([type="checkbox"]), textarea, select, [contenteditable="true"]'

/** Whether an element is one that is typed into. */
export const isTypedIn = (element: Element | null): element is Element => element?.closest(TYPED_IN) != null

export const isDialogOpen = () => document.querySelector('.v-overlay--active .v-card, dialog[open]') !== null

export function isTyping(event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return true
  const at = event.target instanceof Element ? event.target : null
  return isTypedIn(at) || document.querySelector('.v-overlay--active') !== null
}
