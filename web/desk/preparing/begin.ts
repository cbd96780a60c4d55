import type {
  Path,
  PathStation,
  Practice,
  Preparation,
  PreparationKind,
  Service,
} from '@acolhida/core/practice'
import { freeId } from '@acolhida/core/questions'
import type { TextBlock } from '@acolhida/core/terms'
import { duration } from '@acolhida/core/time'

const p = (text: string): TextBlock => ({ p: [{ text }] })
const head = (text: string): TextBlock => ({ p: [{ text, bold: true }] })

/** A letter to begin with: what whoever comes wants to know before they need it. */
const REACH_ME: TextBlock[] = [
  head('How to reach me'),
  p(
    'Between sessions you can write to me at any time. I read messages on working days and answer within two of them.',
  ),
  head('When I can’t answer'),
  p(
    'I am not there at night, at weekends, or in a crisis. When I am away for longer, you know it beforehand.',
  ),
  head('If you need help at once'),
  {
    list: [
      [{ text: 'In danger: call 112, or the emergency number where you are.' }],
      [
        {
          text: 'If you need to talk to somebody now: the listening service of your country is there day and night.',
        },
      ],
    ],
  },
  p('Please read the number of that service up once, and keep it where you find it.'),
]

/** Something new to prepare, of one kind, as it begins. Nothing where there is nothing in the practice that it could be about. */
export function beginPreparation(practice: Practice, is: PreparationKind): Preparation | undefined {
  const { preparations = [], terms, questionnaires } = practice
  const id = freeId(new Set(preparations.map((one) => one.id)), is)
  const before = { from: 'start', by: duration('P1D') } as const
  switch (is) {
    case 'read':
      return { id, is, name: 'How to reach me', minutes: 2, due: before, once: true, text: REACH_ME }
    case 'sign': {
      const text = terms.find(({ separate }) => separate) ?? terms[0]
      return (
        text && {
          id,
          is,
          name: text.versions.at(-1)!.title,
          minutes: 3,
          due: before,
          once: true,
          terms: text.id,
        }
      )
    }
    case 'answer': {
      const asked = questionnaires[0]
      return asked && { id, is, name: asked.name, minutes: 10, due: before, questionnaire: asked.id }
    }
    case 'bring':
      return {
        id,
        is,
        name: 'Something to bring',
        due: before,
        text: 'Please send me what we should look at together.',
      }
    case 'tick':
      return { id, is, name: 'Something to do', due: before, text: '' }
  }
}

/** What sessions of a path begin as: of a service that one person comes to. */
const single = ({ services }: Practice): Service => services.find(({ seats }) => seats === 1) ?? services[0]!

/** How a path begins. */
export function beginPath(practice: Practice): Path {
  const { paths = [] } = practice
  const one = single(practice)
  return {
    id: freeId(new Set(paths.map(({ id }) => id)), 'path'),
    ...{ name: 'A new path', text: '', price: 0 },
    stations: [{ id: 'sessions', does: 'sessions', service: one.id, minutes: one.minutes, many: 6 }],
  }
}

/** What comes onto the line of a path, as it begins. @throws Error where there is nothing in the practice that it could be */
export function beginStation(practice: Practice, does: PathStation['does'], path: Path): PathStation {
  const id = freeId(new Set(path.stations.map((station) => station.id)), does)
  const one = single(practice)
  switch (does) {
    case 'prepare': {
      const [first] = practice.preparations ?? []
      if (!first)
        throw new Error('There is nothing to prepare yet. Please write it under What clients prepare first.')
      return { id, does, preparation: first.id }
    }
    case 'sessions':
      return { id, does, service: one.id, minutes: one.minutes, many: 1 }
    case 'pay':
      return { id, does, parts: 3, after: duration('P7D'), every: duration('P1M') }
    case 'pause':
      return { id, does, days: 14 }
  }
}
