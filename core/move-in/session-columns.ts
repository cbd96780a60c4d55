import { plainHeading } from './columns.ts'

/** What a column of a table can tell of a session that is to come, or of how somebody stands. */
export const SESSION_COLUMNS = [
  'name',
  'given',
  'family',
  'email',
  'phone',
  'start',
  'date',
  'time',
  'end',
  'minutes',
  'service',
  'place',
  'price',
  'paid',
  'left',
  'owes',
] as const
export type SessionColumn = (typeof SESSION_COLUMNS)[number]

/** What such columns are headed by, in English and Portuguese (common practice, no source). */
const HEADINGS: Record<SessionColumn, readonly string[]> = {
  name: ['name', 'full name', 'client', 'client name', 'attendee', 'nome', 'cliente'],
  given: ['first name', 'given name', 'primeiro nome', 'nome proprio'],
  family: ['last name', 'family name', 'surname', 'apelido', 'sobrenome'],
  email: ['email', 'e-mail', 'mail', 'email address', 'e-mail address', 'mail address', 'client email'],
  phone: ['phone', 'telephone', 'mobile', 'phone number', 'telefone', 'telemovel'],
  start: [
    'start',
    'starts',
    'begins',
    'from',
    'start time',
    'date and time',
    'when',
    'inicio',
    'data e hora',
  ],
  date: ['date', 'day', 'start date', 'session date', 'data', 'dia'],
  time: ['time', 'hour', 'at', 'hora'],
  end: ['end', 'ends', 'to', 'until', 'end time', 'fim', 'ate'],
  minutes: ['minutes', 'length', 'duration', 'min', 'minutos', 'duracao'],
  service: ['service', 'session', 'type', 'session type', 'kind', 'what', 'servico', 'sessao', 'tipo'],
  place: ['place', 'location', 'where', 'local', 'onde', 'lugar'],
  price: ['price', 'amount', 'fee', 'total', 'preco', 'valor'],
  paid: ['paid', 'amount paid', 'pago'],
  left: [
    'sessions left',
    'left',
    'remaining',
    'remaining sessions',
    'credits',
    'restantes',
    'sessoes restantes',
  ],
  owes: ['owes', 'balance', 'open', 'due', 'amount due', 'outstanding', 'saldo', 'em aberto'],
}

/** What each column seems to be, by its heading; nothing where that tells nothing, and nothing twice. */
export function guessSessionColumns(headings: readonly string[]): (SessionColumn | undefined)[] {
  const used = new Set<SessionColumn>()
  return headings.map((heading) => {
    const said = plainHeading(heading)
    const found = SESSION_COLUMNS.find((column) => HEADINGS[column].includes(said) && !used.has(column))
    if (found) used.add(found)
    return found
  })
}
