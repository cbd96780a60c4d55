/** A sentence of a catalogue by its place among all: "letters.confirmation". */
export const wordKey = (book: string, name: string): string => `${book}.${name}`

/** The practitioner's own sentences of one catalogue, by their names there; what it does not have is left out. */
export function ownWords<K extends string>(
  all: Readonly<Record<string, string>> | undefined,
  book: string,
  catalogue: Readonly<Record<K, string>>,
): Partial<Record<K, string>> {
  const own: Partial<Record<K, string>> = {}
  for (const [key, text] of Object.entries(all ?? {})) {
    const name = key.startsWith(`${book}.`) ? key.slice(book.length + 1) : ''
    if (Object.hasOwn(catalogue, name)) own[name as K] = text
  }
  return own
}
