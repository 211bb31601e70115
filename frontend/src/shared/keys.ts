// Single keys act on the page only while nobody types, and no dialog is open.
const TYPED_IN = 'input:not([type="radio"]):not([type="checkbox"]), textarea, select, [contenteditable="true"]'

export function isTyping(event: KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented) return true
  const at = event.target instanceof Element ? event.target : undefined
  return at?.closest(TYPED_IN) != null || document.querySelector('.v-overlay--active') !== null
}
