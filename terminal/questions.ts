import { readdirSync } from 'node:fs'
import { join } from 'node:path'
import type { Service } from '@acolhida/core/practice'
import {
  draftFaults,
  draftOf,
  newcomer,
  type Questionnaire,
  readAnswers,
  withSheet,
} from '@acolhida/core/questions'
import { nearestChange } from '@acolhida/core/questions/nearest'
import { checkPaths } from '@acolhida/core/questions/paths'
import type { ReadFile } from '@acolhida/core/schemas'
import { answersIn } from './given.ts'
import { need, Unusable, type Values } from './options.ts'

/** The questionnaire that is meant, and a service it is for. @throws Unusable where there is none */
function meant(file: ReadFile, values: Values): { questionnaire: Questionnaire; service: Service } {
  const { questionnaires, services } = file.practice
  const id =
    values.questionnaire ??
    (questionnaires.length === 1 ? questionnaires[0]!.id : need(values, 'questionnaire'))
  const questionnaire = questionnaires.find((questionnaire) => questionnaire.id === id)
  if (!questionnaire) {
    const known = questionnaires.map((questionnaire) => questionnaire.id).join(', ')
    throw new Unusable(`--questionnaire: there is none named "${id}"; there are ${known || 'none'}`)
  }
  const service = values.service
    ? services.find((service) => service.id === values.service)
    : (services.find((service) => service.questionnaire === id) ?? services[0])
  if (!service) throw new Unusable(`--service: there is no service "${values.service ?? ''}"`)
  return { questionnaire, service }
}

/** What is proven of a questionnaire, of its draft where `--draft` is given. */
export function checkCommand(file: ReadFile, values: Values) {
  const { questionnaire, service } = meant(file, values)
  const sheet = values.draft === undefined ? questionnaire : withSheet(questionnaire, draftOf(questionnaire))
  const faults = draftFaults(sheet)
  const check = checkPaths(sheet, service)!
  const { asked, ...told } = check
  return {
    questionnaire: questionnaire.id,
    version: questionnaire.version,
    service: service.id,
    faults,
    ...told,
    asked: Object.fromEntries(sheet.questions.map((question, i) => [question.id, asked[i] ?? 0])),
  }
}

/** Whether a check has found what breaks a way. */
export const isBroken = ({ faults, findings }: ReturnType<typeof checkCommand>): boolean =>
  faults.length > 0 || findings.some((finding) => finding.grade === 'error')

/** Reads every file of answers in a folder with the version at the door and with the draft, and tells what differs. */
export function replayCommand(file: ReadFile, values: Values): object {
  const { questionnaire, service } = meant(file, values)
  const folder = need(values, 'answers')
  let names: string[]
  try {
    names = readdirSync(folder)
      .filter((name) => name.endsWith('.json'))
      .sort()
  } catch (error) {
    throw new Unusable(`${folder} can't be read: ${(error as NodeJS.ErrnoException).code}`)
  }
  const next = withSheet(questionnaire, draftOf(questionnaire))
  const read = names.map((name) => {
    const answers = answersIn(join(folder, name))
    const at = (sheet: Questionnaire) => {
      const { outcome, quote } = readAnswers(service, sheet, answers, newcomer)
      return { outcome, minutes: quote.minutes, price: quote.price }
    }
    const now = at(questionnaire)
    const then = at(next)
    const changed = JSON.stringify(now) !== JSON.stringify(then)
    const nearest = nearestChange(service, next, answers, newcomer)
    return { file: name, now, ...(changed ? { draft: then } : {}), ...(nearest ? { nearest } : {}) }
  })
  return {
    questionnaire: questionnaire.id,
    version: questionnaire.version,
    draft: questionnaire.draft !== undefined,
    service: service.id,
    read: read.length,
    changed: read.filter((reading) => 'draft' in reading).length,
    answers: read,
  }
}
