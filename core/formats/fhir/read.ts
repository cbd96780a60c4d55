import type { Questionnaire as FhirQuestionnaire, QuestionnaireItem } from 'fhir/r4'
import {
  type AnyKind,
  type Choice,
  type Condition,
  freeId,
  KINDS,
  kindOf,
  type Question,
  type Questionnaire,
} from '../../questions/index.ts'
import { FHIR, type ItemReading, numberIn } from '../../questions/kinds/kind.ts'
import { fromEnableWhen, toEnableWhen } from './conditions.ts'
import { ITEM_CONTROL, OWN_QUESTION, OWN_SHEET, readOwn } from './names.ts'

/** What has been read of a file, and in words what could not be. */
export interface ReadFhir {
  questionnaire: Omit<Questionnaire, 'id'>
  unread: string[]
}

type Bag = Record<string, unknown>

/**
 * Reads an HL7 FHIR R4 `Questionnaire` whose shape is right. Nested groups become parts one after the other; what has
 * no counterpart is listed. The result has yet to pass the schema of questionnaires.
 */
export function fromFhir(fhir: FhirQuestionnaire): ReadFhir {
  const reader = new Reader()
  reader.all(fhir.item ?? [], undefined)
  const kept = readOwn(fhir.extension, OWN_SHEET)
  const sheet = kept as Partial<Pick<Questionnaire, 'rules' | 'bands' | 'lookAbove' | 'enquiryAbove'>>
  const version = Number(fhir.version)
  return {
    questionnaire: {
      name: fhir.title || fhir.name || 'Questions from a file',
      version: Number.isInteger(version) && version > 0 ? version : 1,
      questions: reader.questions,
      rules: [],
      bands: [],
      ...sheet,
    },
    unread: [...sheetNotTaken(fhir), ...reader.unread],
  }
}

/** What a questionnaire as a whole says that has no counterpart here. */
function sheetNotTaken({ contained, extension, code }: FhirQuestionnaire): string[] {
  const sets = (contained ?? []).map(({ resourceType, id }) => `${resourceType} “${id ?? ''}”`)
  return [
    ...(sets.length > 0 ? [`What stands in the file itself is not read: ${sets.join(', ')}.`] : []),
    ...(code?.length ? ['What it means elsewhere (its code) is not taken over.'] : []),
    ...extensionsNotTaken(extension).map((what) => `The questionnaire: ${what} is not taken over.`),
  ]
}

/** A group, as the part its questions stand in. */
interface Part {
  item: QuestionnaireItem
  help?: string
  when?: Condition
}

/** Both conditions, as far as there are any. */
const both = (a: Condition | undefined, b: Condition | undefined): Condition | undefined =>
  a && b ? { all: [a, b] } : (a ?? b)

class Reader {
  readonly questions: Question[] = []
  readonly unread: string[] = []
  #open: Part | undefined
  readonly #ids = new Map<string, string>()
  /** Our names of choices, by link id and code. */
  readonly #choices = new Map<string, string>()

  all(items: readonly QuestionnaireItem[], above: Condition | undefined, part?: Part): void {
    for (const item of items) this.#item(item, above, part)
  }

  #say(item: QuestionnaireItem, what: string): void {
    this.unread.push(`“${item.text ?? item.linkId}”: ${what}`)
  }

  #item(item: QuestionnaireItem, above: Condition | undefined, part: Part | undefined): void {
    const kept = readOwn(item.extension, OWN_QUESTION)
    for (const what of notTaken(item)) this.#say(item, `${what} is not taken over.`)
    const own = this.#own(item, kept)
    if (item.type === 'group' && !keptAs(item, kept)?.asks) {
      if (item.repeats) this.#say(item, 'it can be filled several times there, and once here.')
      const when = both(both(part?.when, above), own)
      const help = typeof kept.help === 'string' ? kept.help : this.#help(item)
      const inner = { item, ...(help ? { help } : {}), ...(when ? { when } : {}) }
      // A part's condition is that of everything in it.
      this.all(
        (item.item ?? []).filter((item) => !isHelp(item)),
        undefined,
        inner,
      )
      return
    }
    const question = this.#question(item, kept)
    if (!question) return
    this.#enter(part, question.kind)
    const when = both(above, own)
    const { when: _, kind: __, ...more } = kept
    const help = this.#help(item)
    // Its name is found anew: entering a part may have taken it.
    this.questions.push({
      ...question,
      id: this.#id(item.linkId),
      ...(help ? { help } : {}),
      ...more,
      ...(when ? { when } : {}),
    } as Question)
    // What lies below a question is asked when the question is.
    if (item.type !== 'group')
      this.all(
        (item.item ?? []).filter((item) => !isHelp(item)),
        when,
        part,
      )
  }

  /** The item's own condition: as it was kept, where that still says what the standard's elements say. */
  #own(item: QuestionnaireItem, { when }: Bag): Condition | undefined {
    const said = this.#condition(item)
    if (when === undefined || typeof when !== 'object') return said
    const kept = when as Condition
    if (said === undefined) return kept
    const { enableWhen, enableBehavior } = item
    const same = toEnableWhen(kept, this.questions)
    return JSON.stringify(same) ===
      JSON.stringify({ enableWhen, ...(enableBehavior ? { enableBehavior } : {}) })
      ? kept
      : said
  }

  /** Begins the part a question stands in, if it is another one than that before it. */
  #enter(part: Part | undefined, kind: Question['kind']): void {
    if (kind === 'section' || this.#open === part) return
    this.#open = part
    const linkId = part?.item.linkId ?? 'more'
    this.questions.push({
      id: this.#id(linkId),
      kind: 'section',
      text: part ? (part.item.text ?? linkId) : 'More questions',
      required: false,
      ...(part?.help ? { help: part.help } : {}),
      ...(part?.when ? { when: part.when } : {}),
    })
  }

  #help(item: QuestionnaireItem): string | undefined {
    return item.item?.find(isHelp)?.text
  }

  #id(linkId: string): string {
    const taken = this.questions.map((question) => question.id)
    const id = freeId(taken, plainId(linkId) || 'question')
    if (!this.#ids.has(linkId)) this.#ids.set(linkId, id)
    return id
  }

  #condition(item: QuestionnaireItem): Condition | undefined {
    return fromEnableWhen(
      item,
      (linkId) =>
        this.questions.find(
          (question) => question.id === this.#ids.get(linkId) && question.kind !== 'section',
        ),
      (linkId, code) => this.#choices.get(`${linkId} ${code}`),
      (what) => this.#say(item, `${what} is not read.`),
    )
  }

  #choicesOf(item: QuestionnaireItem): Choice[] {
    const choices: Choice[] = []
    for (const option of item.answerOption ?? []) {
      const coding = option.valueCoding
      const plain = option.valueString ?? option.valueDate ?? option.valueTime ?? option.valueInteger
      const code = coding?.code ?? coding?.display ?? (plain === undefined ? undefined : String(plain))
      if (code === undefined) {
        this.#say(item, 'one of its choices is not read.')
        continue
      }
      const id = freeId(
        choices.map((choice) => choice.id),
        plainId(code) || 'choice',
      )
      const points = numberIn(coding?.extension, FHIR.ordinal) ?? numberIn(option.extension, FHIR.ordinal)
      this.#choices.set(`${item.linkId} ${code}`, id)
      choices.push({ id, text: coding?.display ?? code, ...(points === undefined ? {} : { points }) })
    }
    return choices
  }

  #question(item: QuestionnaireItem, kept: Bag): Question | undefined {
    const least = numberIn(item.extension, FHIR.minValue)
    const most = numberIn(item.extension, FHIR.maxValue)
    const reading: ItemReading = {
      kept,
      ...(least === undefined ? {} : { least }),
      ...(most === undefined ? {} : { most }),
      choices: () => this.#choicesOf(item),
      say: (what) => this.#say(item, what),
    }
    // What it was kept as comes first; then what its type is read as, and where that has too little, a few words.
    const named = keptAs(item, kept) && (kept.kind as Question['kind'])
    const usual = ALL_KINDS.find((kind) => KINDS[kind].fhir.reads(item))
    if (!named && !usual) {
      this.#say(item, `questions of the kind “${item.type}” are not read.`)
      return undefined
    }
    for (const kind of [named, usual, 'short' as const]) {
      const own = kind && KINDS[kind].fhir.read(item, reading)
      if (own)
        return {
          id: item.linkId,
          text: item.text ?? item.linkId,
          required: item.required ?? false,
          kind,
          ...own,
        } as Question
    }
    return undefined
  }
}

/** What an item says that has no counterpart here. */
function notTaken(item: QuestionnaireItem): string[] {
  const plain = [
    ['its prefix', item.prefix],
    ['its initial value', item.initial?.length],
    [
      'which choice is chosen to begin with',
      item.answerOption?.some(({ initialSelected }) => initialSelected),
    ],
    ['that it can only be read', item.readOnly],
    ['its greatest length', item.maxLength],
    ['what it means elsewhere (its code)', item.code?.length],
  ] as const
  return [...plain.flatMap(([what, there]) => (there ? [what] : [])), ...extensionsNotTaken(item.extension)]
}

/** Extensions of the standard that are no part of what is read, as people would say them. */
const EXTENSIONS: Readonly<Record<string, string>> = {
  'questionnaire-hidden': 'that it is hidden',
  'sdc-questionnaire-calculatedExpression': 'what it is calculated from',
  'sdc-questionnaire-initialExpression': 'what it begins with by a calculation',
  'sdc-questionnaire-enableWhenExpression': 'a calculation that decides whether it is asked',
  'sdc-questionnaire-answerExpression': 'choices that are calculated',
  'questionnaire-constraint': 'a rule its answer must keep',
  regex: 'the pattern its answer must have',
  minLength: 'its least length',
  'questionnaire-choiceOrientation': 'how its choices lie',
  'questionnaire-signatureRequired': 'that it must be signed',
}

/** Names of extensions that are read somewhere. */
const READ = new Set<string>([...Object.values(FHIR), ITEM_CONTROL, OWN_QUESTION, OWN_SHEET])

function extensionsNotTaken(extensions: QuestionnaireItem['extension']): string[] {
  const names = (extensions ?? []).map(({ url }) => url).filter((url) => !READ.has(url))
  return [...new Set(names)].map((url) => {
    const name = url.slice(url.lastIndexOf('/') + 1)
    return Object.hasOwn(EXTENSIONS, name) ? EXTENSIONS[name]! : `the extension “${name.slice(0, 60)}”`
  })
}

/** What of another's name of something can be an id of ours, with room for a number behind it. */
const plainId = (name: string): string =>
  name
    .replaceAll(/[^A-Za-z0-9._-]+/g, '-')
    .replace(/^[^A-Za-z0-9]+/, '')
    .slice(0, 58)

const ALL_KINDS = Object.keys(KINDS) as Question['kind'][]

/** The kind an item was kept as, where its type still is one of that kind's. */
function keptAs(item: QuestionnaireItem, { kind }: Bag): AnyKind<Question> | undefined {
  const found = ALL_KINDS.find((other) => other === kind)
  return found && KINDS[found].fhir.as.includes(item.type) ? kindOf({ kind: found }) : undefined
}

const isHelp = (item: QuestionnaireItem): boolean =>
  item.type === 'display' &&
  (item.extension ?? []).some(
    (extension) =>
      extension.url === ITEM_CONTROL &&
      extension.valueCodeableConcept?.coding?.some(({ code }) => code === 'help'),
  )
