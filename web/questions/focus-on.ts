/** Leads to the first field of a question, for the eye to land on. */
export const focusOn = (question: string): void =>
  document.getElementById(`question-${question}`)?.querySelector<HTMLElement>('input, textarea')?.focus()
