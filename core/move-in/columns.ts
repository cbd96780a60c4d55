import { plainLetters } from '../people/index.ts'

/** What a column of a table can tell of somebody. */
export const COLUMNS = [
  'name',
  'given',
  'family',
  'email',
  'phone',
  'pronouns',
  'birthday',
  'stage',
  'cameFrom',
  'tags',
  'note',
] as const
export type PersonColumn = (typeof COLUMNS)[number]

/** What columns are headed by, in English and Portuguese (common practice, no source). */
const HEADINGS: Record<PersonColumn, readonly string[]> = {
  name: ['name', 'full name', 'client', 'client name', 'display name', 'nome', 'nome completo', 'cliente'],
  given: ['first name', 'given name', 'first', 'forename', 'primeiro nome', 'nome proprio'],
  family: ['last name', 'family name', 'surname', 'last', 'apelido', 'sobrenome', 'ultimo nome'],
  email: ['email', 'e-mail', 'mail', 'email address', 'e-mail address', 'mail address', 'endereco de email'],
  phone: ['phone', 'telephone', 'mobile', 'phone number', 'cell', 'tel', 'telefone', 'telemovel', 'celular'],
  pronouns: ['pronouns', 'pronoun', 'pronomes'],
  birthday: ['birthday', 'date of birth', 'birth date', 'born', 'dob', 'nascimento', 'data de nascimento'],
  cameFrom: ['source', 'came from', 'referred by', 'referral', 'origin', 'origem'],
  stage: ['stage', 'status', 'phase', 'fase', 'estado'],
  tags: ['tags', 'tag', 'groups', 'group', 'categories', 'labels', 'etiquetas', 'grupo', 'grupos'],
  note: ['note', 'notes', 'comment', 'comments', 'remarks', 'nota', 'notas', 'observacoes', 'comentarios'],
}

/** A heading without what differs from one table to the next: capitals, accents, marks. */
export const plainHeading = (heading: string): string =>
  plainLetters(heading)
    .replaceAll(/[^\p{L}\p{N}-]+/gu, ' ')
    .trim()

/** What each column seems to be, by its heading; nothing where that tells nothing, and nothing twice but notes. */
export function guessColumns(headings: readonly string[]): (PersonColumn | undefined)[] {
  const used = new Set<PersonColumn>()
  return headings.map((heading) => {
    const said = plainHeading(heading)
    const found = COLUMNS.find((column) => HEADINGS[column].includes(said) && !used.has(column))
    if (found && found !== 'note') used.add(found)
    return found
  })
}
