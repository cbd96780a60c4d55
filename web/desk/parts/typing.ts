/** What is being typed and not kept yet, for a page that is loaded anew amid it. */
const PREFIX = 'acolhida-typing '

/** A field by what can be told of it before and after: its page, its words, and which of its like it is. */
function nameOf(field: HTMLElement, label: string): string {
  const alike = [...document.querySelectorAll('[data-saved]')].filter(
    (other) => other.getAttribute('data-saved') === label,
  )
  return `${PREFIX}${location.pathname} ${label} ${alike.indexOf(field)}`
}

/** Notes what is typed over what; nothing where it has been kept. */
export function noteTyping(
  field: HTMLElement | null,
  label: string,
  typed: { over: string; text: string } | undefined,
): void {
  if (!field) return
  const name = nameOf(field, label)
  try {
    if (typed) sessionStorage.setItem(name, JSON.stringify(typed))
    else sessionStorage.removeItem(name)
  } catch {
    // Without room for it, only a reload within half a second loses it.
  }
}

/** What was being typed in a field when its page was left, over the same value as it has now. */
export function typedBefore(field: HTMLElement | null, label: string, value: string): string | undefined {
  if (!field) return undefined
  const found = sessionStorage.getItem(nameOf(field, label))
  if (!found) return undefined
  const { over, text } = JSON.parse(found) as { over: string; text: string }
  return over === value ? text : undefined
}
