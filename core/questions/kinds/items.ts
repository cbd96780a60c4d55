import { count, id as idShape, line, maybe, object, text, unique, whole } from '../../shape/shape.ts'
import type { Wrong } from '../../words/index.ts'
import type { AnswerValue, Item, Quantities } from '../base.ts'
import { isQuantities, quantityIn } from '../values.ts'
import { begun } from './choices.ts'
import { FHIR, type Kind, type Looked, limitsOf, MOST_OPTIONS, numberIn, range, TooMany } from './kind.ts'

export interface Items {
  items: Item[]
  least?: number
  most?: number
  unit?: string
}

/** How many of each of several things. */
export const itemsKind: Kind<Items> = {
  name: 'Items, and how many',
  asks: true,
  shape: {
    items: unique(object({ id: idShape, text: line(300), most: whole(1, 1_000) }), 100, 1),
    least: maybe(count),
    most: maybe(count),
    unit: maybe(text(30)),
  },
  settings: [
    { key: 'items', label: 'Items, a line each', is: 'items' },
    { key: 'least', label: 'At least', is: 'whole' },
    { key: 'most', label: 'At most', is: 'whole' },
  ],
  begin: (listed) => ({ items: begun(listed).map((line) => ({ ...line, most: 10 })) }),
  problem,
  limits: ({ least, most }) =>
    limitsOf({ least: 'limit.least', most: 'limit.most', between: 'limit.between' }, least, most),
  words: (question, value) =>
    Object.entries(isQuantities(value) ? value : {})
      .filter(([, many]) => many > 0)
      .map(([id, many]) => `${many} × ${question.items.find((item) => item.id === id)?.text ?? id}`)
      .join(', '),
  ways: itemSets,
  impossible: (question) => {
    const all = question.items.reduce((sum, item) => sum + item.most, 0)
    const { least = 0, most = all } = question
    if (least > most) return `No answer is possible: at least ${least} and at most ${most} together.`
    return least > all ? `No answer is possible: there are ${all} together at most.` : undefined
  },
  compares: ['includes', '=', '<', '≤', '>', '≥', 'answered'],
  // They are looked for by name, and compared by how many there are together.
  first: (question, is) => (is === 'includes' ? (question.items[0]?.id ?? '') : 1),
  typed: 'number',
  listed: (question, is) => (is === 'includes' ? question.items : undefined),
  multiplies: true,
  fhir: {
    write: (question) => ({
      item: {
        type: 'group',
        item: question.items.map((item) => ({
          linkId: linkId(question.id, item.id),
          text: item.text,
          type: 'integer' as const,
          extension: [
            { url: FHIR.minValue, valueInteger: 0 },
            { url: FHIR.maxValue, valueInteger: item.most },
          ],
        })),
      },
      kept: ['least', 'most', 'unit'],
      named: true,
    }),
    as: ['group'],
    reads: () => false,
    read: (item) => ({
      items: (item.item ?? [])
        .filter(({ type }) => type === 'integer')
        .map((part) => ({
          id: ownId(item, part),
          text: part.text ?? part.linkId,
          most: numberIn(part.extension, FHIR.maxValue) ?? 10,
        })),
    }),
    respond: (question, value) => ({
      item: question.items.flatMap((item) => {
        const many = isQuantities(value) ? (value[item.id] ?? 0) : 0
        if (many === 0) return []
        return [{ linkId: linkId(question.id, item.id), text: item.text, answer: [{ valueInteger: many }] }]
      }),
    }),
    answered: (item) =>
      Object.fromEntries(
        (item.item ?? []).map((part) => [ownId(item, part), part.answer?.[0]?.valueInteger ?? 0]),
      ),
  },
}

/** What names an item in a questionnaire, where ids are its own for the whole: the question's before it. */
const linkId = (question: string, item: string): string => `${question}/${item}`

/** The id of an item of ours under its question's; that of another's is its own as it stands. */
const ownId = (question: { linkId: string }, item: { linkId: string }): string =>
  item.linkId.startsWith(linkId(question.linkId, ''))
    ? item.linkId.slice(linkId(question.linkId, '').length)
    : item.linkId

function problem(question: Items, value: AnswerValue): Wrong | undefined {
  if (!isQuantities(value)) return { code: 'how-many' }
  for (const [id, many] of Object.entries(value)) {
    const item = question.items.find((item) => item.id === id)
    if (!item || !Number.isInteger(many) || many < 0) return { code: 'how-many-whole' }
    if (many > item.most) return { code: 'too-many-of', data: { most: item.most, item: item.text } }
  }
  const all = quantityIn(value)
  if (question.least !== undefined && all < question.least)
    return { code: 'too-few-items', data: { least: question.least, now: all } }
  if (question.most !== undefined && all > question.most)
    return { code: 'too-many-items', data: { most: question.most, now: all } }
  return undefined
}

/**
 * Sets of items: those told apart by themselves one by one, all others together by how many they are; each set with
 * the number of ways to come to it.
 */
function itemSets(question: Items, { compared, counts }: Looked): [Quantities, number][] {
  const apart = new Set([...compared.map(String), ...counts.flatMap((count) => count.of ?? [])])
  const own = question.items.filter((item) => apart.has(item.id))
  const rest = question.items.filter((item) => !apart.has(item.id))
  const together = sumsOf(rest.map((item) => item.most))
  let sets: [Quantities, number][] =
    rest.length === 0 ? [[{}, 1]] : together.map((ways, many) => [spread(rest, many), ways])
  for (const item of own) {
    if (sets.length * (item.most + 1) > MOST_OPTIONS) throw new TooMany('items')
    sets = sets.flatMap(([set, ways]) =>
      range(0, item.most).map((many): [Quantities, number] => [
        many > 0 ? { ...set, [item.id]: many } : set,
        ways,
      ]),
    )
  }
  const least = Math.max(1, question.least ?? 0)
  const most = question.most ?? Number.POSITIVE_INFINITY
  return sets.filter(([set]) => quantityIn(set) >= least && quantityIn(set) <= most)
}

/** In how many ways numbers up to these bounds add up to each sum. */
function sumsOf(bounds: readonly number[]): number[] {
  let ways = [1]
  for (const bound of bounds) {
    const next = new Array<number>(ways.length + bound).fill(0)
    ways.forEach((many, sum) => {
      for (let more = 0; more <= bound; more++) next[sum + more]! += many
    })
    ways = next
  }
  return ways
}

/** So many items, the first ones first. */
function spread(list: readonly { id: string; most: number }[], many: number): Quantities {
  let left = many
  const set: Quantities = {}
  for (const { id, most } of list) {
    const taken = Math.min(left, most)
    if (taken > 0) set[id] = taken
    left -= taken
  }
  return set
}
