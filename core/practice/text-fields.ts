import { rulesFor } from './terms-values.ts'
import type { Practice, Service } from './types.ts'

/** What there is to know of a field of texts, but for what it writes. */
interface TextField {
  /** What it is called on its chip. */
  says: string
  /** Why it would stay empty for a service, where it would. */
  lacks?(practice: Practice, service: Service): string | undefined
  /** Also where nothing is booked. */
  bare?: true
}

const free = ({ price }: Service): boolean => price.kind === 'free'
const freeTier = (practice: Practice, service: Service): boolean =>
  rulesFor(practice, service).cancel.some(({ share }) => share === 0)
const whereFree = (_: Practice, service: Service): string | undefined =>
  free(service) ? 'it is free of charge' : undefined

/** Every field that can stand in a message, by its name there. */
export const TEXT_FIELDS = {
  name: { says: 'their name', bare: true },
  firstName: { says: 'their first name', bare: true },
  service: { says: 'the service', bare: true },
  when: { says: 'day and time' },
  start: { says: 'the start, in short' },
  date: { says: 'the day' },
  time: { says: 'the time' },
  minutes: { says: 'the length in minutes' },
  place: { says: 'where' },
  price: { says: 'the price' },
  cost: { says: 'what cancelling costs', lacks: whereFree },
  freeUntil: {
    says: 'until when it is free to cancel',
    lacks: (practice, service) =>
      freeTier(practice, service) ? undefined : 'cancelling it is never free of charge',
  },
  moveUntil: {
    says: 'until when they can move it',
    lacks: (practice, service) =>
      rulesFor(practice, service).move.times > 0 ? undefined : 'clients can’t move it',
  },
  open: { says: 'what is still to pay', lacks: whereFree },
  payBy: { says: 'by when it is to be paid', lacks: whereFree },
  before: {
    says: 'what to read or do before',
    lacks: (_, { before }) => (before ? undefined : 'it has nothing to read or do before'),
  },
  prepareBy: {
    says: 'by when that is to be done',
    lacks: (_, { before }) => (before?.tick ? undefined : 'it has nothing that can be ticked before'),
  },
  link: { says: 'link to their page', bare: true },
  coming: { says: 'link: I’ll be there' },
  move: { says: 'link: move' },
  cancel: { says: 'link: cancel' },
  door: { says: 'link to your door', bare: true },
  practitioner: { says: 'your name', bare: true },
  phone: {
    says: 'your phone',
    lacks: ({ profile }) => (profile.phone?.trim() ? undefined : 'your profile has no phone number'),
    bare: true,
  },
} as const satisfies Record<string, TextField>

export type FieldName = keyof typeof TEXT_FIELDS

/** A field, by its name; nothing where there is none of that name. */
export const textField = (name: string): TextField | undefined =>
  Object.hasOwn(TEXT_FIELDS, name) ? TEXT_FIELDS[name as FieldName] : undefined

const MARK = /\{([A-Za-z]+)\}/g

/** A text in its pieces: words, and fields between them. */
export type TextPiece = string | { field: string }

const taken = new Map<string, TextPiece[]>()
/** How many texts are kept taken apart. */
const KEPT = 500

/** A text taken apart at its fields; kept, as the same text is filled many times. */
export function piecesOf(text: string): readonly TextPiece[] {
  const before = taken.get(text)
  if (before) return before
  const pieces: TextPiece[] = []
  let from = 0
  for (const found of text.matchAll(MARK)) {
    if (found.index > from) pieces.push(text.slice(from, found.index))
    pieces.push({ field: found[1]! })
    from = found.index + found[0].length
  }
  if (from < text.length) pieces.push(text.slice(from))
  if (taken.size >= KEPT) taken.clear()
  taken.set(text, pieces)
  return pieces
}

/** The fields that a text names, each once. */
export const fieldsOf = (text: string): string[] => [
  ...new Set(piecesOf(text).flatMap((piece) => (typeof piece === 'string' ? [] : [piece.field]))),
]

/**
 * What is wrong with a text: fields there are not, and such as would stay empty.
 * @param service for which it is sent; without one, where nothing is booked
 */
export function textFaults(text: string, practice: Practice, service: Service | undefined): string[] {
  return fieldsOf(text).flatMap((name) => {
    const field = textField(name)
    if (!field) return [`There is no field “{${name}}”; choose one from the list.`]
    if (!service) return field.bare ? [] : [`“${field.says}” is known only of something booked.`]
    const why = field.lacks?.(practice, service)
    return why ? [`“${field.says}” would stay empty for ${service.name}: ${why}.`] : []
  })
}
