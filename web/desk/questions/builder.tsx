import { signOf } from '@acolhida/core/money'
import { type Practice, serviceOf } from '@acolhida/core/practice'
import {
  depthsOf,
  draftFaults,
  draftOf,
  freeId,
  type Question,
  type Questionnaire,
  questionsIn,
  withSheet,
} from '@acolhida/core/questions'
import { Plus } from 'lucide-react'
import { useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import { useDesk } from '../data/live.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { SortableList } from '../parts/sortable-list.tsx'
import { currencyOf } from '../parts/words.ts'
import { amount } from '../settings/setting.ts'
import { Differences } from './differences.tsx'
import { changeDraft, movedItem, movedQuestion, withDraft, withQuestionnaire } from './draft.ts'
import { QuestionFiles } from './files.tsx'
import { PointBands } from './point-bands.tsx'
import { Publish } from './publish.tsx'
import { QuestionCard } from './question-card.tsx'
import { Replayed } from './replayed.tsx'
import { RuleCard } from './rule-card.tsx'
import { Live, ProofOfPaths, usePathCheck } from './what-it-does.tsx'

/** A questionnaire being written: questions and rules on the left, what they do on the right. */
export function Builder() {
  const { practice } = useDesk()
  const { id = '' } = useParams()
  const questionnaire = practice.questionnaires.find((questionnaire) => questionnaire.id === id)
  if (!questionnaire) {
    return (
      <SettingsPage title="These questions are not here" line="">
        <Link className="way" to="/questions">
          See all questions
        </Link>
      </SettingsPage>
    )
  }
  return <Writing key={id} id={id} />
}

function Writing({ id }: { id: string }) {
  const desk = useDesk()
  const { practice } = desk
  const questionnaire = practice.questionnaires.find((questionnaire) => questionnaire.id === id)!
  const sheet = useMemo(() => draftOf(questionnaire), [questionnaire])
  const written = useMemo(() => withSheet(questionnaire, sheet), [questionnaire, sheet])
  const users = practice.services.filter((service) => service.questionnaire === id)
  const [chosen, setChosen] = useState(users[0]?.id ?? practice.services[0]!.id)
  const service = serviceOf(practice, chosen) ?? practice.services[0]!
  const currency = useMemo(() => currencyOf(practice.profile.currency), [practice.profile.currency])
  const { check, progress, stop } = usePathCheck(written, service, currency)
  const faults = useMemo(() => draftFaults(sheet), [sheet])
  const general = faults.filter((fault) => !fault.question && !fault.rule)
  const [view, setView] = useState<'write' | 'try'>('write')
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set())
  const opened = (place: string, on: boolean): void =>
    setOpen((before) => new Set(on ? [...before, place] : [...before].filter((other) => other !== place)))
  const jump = (place: string): void => {
    opened(place, true)
    requestAnimationFrame(() => {
      const card = document.getElementById(`at-${place}`)
      card?.scrollIntoView({ block: 'start' })
      card?.querySelector<HTMLElement>('[aria-expanded]')?.focus({ preventScroll: true })
    })
  }
  /** Something new: it alone is open, and one writes in it at once. */
  const begin = (place: string): void => {
    setOpen(new Set([place]))
    requestAnimationFrame(() => {
      const card = document.getElementById(`at-${place}`)
      card?.scrollIntoView({ block: 'nearest' })
      const field = card?.querySelector<HTMLInputElement>('input, textarea')
      field?.focus({ preventScroll: true })
      field?.select()
    })
  }
  const depths = depthsOf(sheet.questions, (question) => (question.when ? questionsIn(question.when) : []))
  const { code, decimals } = currency
  const above = (label: string, key: 'lookAbove' | 'enquiryAbove', help: string) => (
    <SavedField
      label={label}
      help={help}
      what="a value"
      suffix={signOf(code)}
      value={sheet[key] === undefined ? '' : (sheet[key] / 10 ** decimals).toFixed(decimals)}
      change={(p, typed) =>
        withDraft(p, id, ({ [key]: _, ...rest }) =>
          typed.trim() === '' ? rest : { ...rest, [key]: amount(typed, decimals) },
        )
      }
    />
  )
  const act = useAct()
  /** @param after the question below which it stands; at the end where there is none */
  const addQuestion = async (plain: Question, after?: string): Promise<void> => {
    if (sheet.questions.length >= MOST_QUESTIONS)
      throw new Error(`There are ${MOST_QUESTIONS} questions already, and nobody answers more than that.`)
    const taken = sheet.questions.map((question) => question.id)
    const fresh = { ...plain, id: freeId(taken, plain.id) }
    await changeDraft(id, 'a question added', (now) => {
      const at = now.questions.findIndex((question) => question.id === after)
      const place = at < 0 ? now.questions.length : at + 1
      return { ...now, questions: now.questions.toSpliced(place, 0, fresh) }
    })
    begin(fresh.id)
  }
  const addRule = async (): Promise<void> => {
    const fresh = freeId(
      sheet.rules.map((rule) => rule.id),
      'rule',
    )
    await changeDraft(id, 'a rule added', (now) => ({
      ...now,
      rules: [
        ...now.rules,
        {
          id: fresh,
          name: 'A new rule',
          // It does nothing until it is said when it acts.
          when: { any: [] },
          effect: { do: 'look', note: '' },
        },
      ],
    }))
    begin(fresh)
  }
  return (
    <SettingsPage title={questionnaire.name} line={standing(questionnaire, users.length > 0)}>
      {users.length === 0 && (
        <p className="note mb-4 bg-tile-soft text-tile-ink">
          No service asks these questions yet. Choose them in one of{' '}
          <Link className="way" to="/services">
            your services
          </Link>
          .
        </p>
      )}
      <div className="grid gap-6 lg:grid-cols-[minmax(0,1fr)_380px]">
        <div className="grid h-fit gap-3">
          <section className="sheet grid grid-cols-3 items-end gap-3 p-4">
            <SavedField
              label="Name, for yourself"
              what="the name of questions"
              value={questionnaire.name}
              change={(p, name) =>
                withQuestionnaire(p, id, (questionnaire) => ({ ...questionnaire, name: name.trim() }))
              }
            />
            {above('Over this price I look first', 'lookAbove', 'Empty: never.')}
            {above('Over this price they write instead of booking', 'enquiryAbove', 'Empty: never.')}
          </section>
          <h2 className="mt-2">Questions</h2>
          <SortableList
            items={sheet.questions.map((question) => ({ id: question.id, name: question.text }))}
            onMove={(from, to) =>
              changeDraft(id, 'the order of questions', (now) => ({
                ...now,
                questions: movedQuestion(now.questions, from, to),
              }))
            }
          >
            {sheet.questions.map((question, i) => (
              <QuestionCard
                key={question.id}
                id={id}
                sheet={sheet}
                question={question}
                number={i + 1}
                depth={depths[i]!}
                open={open.has(question.id)}
                onOpen={(on) => opened(question.id, on)}
                onInsert={() => addQuestion(NEW_QUESTION, question.id)}
                faults={faults.filter((fault) => fault.question === question.id)}
                findings={(check?.findings ?? []).filter((finding) => finding.question === question.id)}
              />
            ))}
          </SortableList>
          <div className="flex flex-wrap items-center gap-3">
            <button
              type="button"
              className="press press-go"
              onClick={() => act.run(() => addQuestion(NEW_QUESTION))}
            >
              <Plus size={16} aria-hidden="true" /> Add a question
            </button>
            <Kept practice={practice} onUse={(plain) => act.run(() => addQuestion(plain))} />
          </div>
          <h2 className="mt-4">Rules</h2>
          <SortableList
            items={sheet.rules}
            onMove={(from, to) =>
              changeDraft(id, 'the order of rules', (now) => ({
                ...now,
                rules: movedItem(now.rules, from, to),
              }))
            }
          >
            {sheet.rules.map((rule, i) => (
              <RuleCard
                key={rule.id}
                id={id}
                practice={practice}
                sheet={sheet}
                rule={rule}
                number={i + 1}
                open={open.has(rule.id)}
                onOpen={(on) => opened(rule.id, on)}
                faults={faults.filter((fault) => fault.rule === rule.id)}
                findings={(check?.findings ?? []).filter((finding) => finding.rule === rule.id)}
              />
            ))}
          </SortableList>
          <button
            type="button"
            className="press press-go justify-self-start"
            onClick={() => act.run(addRule)}
          >
            <Plus size={16} aria-hidden="true" /> Add a rule
          </button>
          <ProblemNote of={act} />
          <section className="sheet mt-4 p-4">
            <PointBands id={id} bands={sheet.bands} />
          </section>
          <QuestionFiles questionnaire={questionnaire} />
          {general.map((choice) => (
            <p key={choice.message} role="alert" className="text-[14px] font-semibold text-clay">
              {choice.message}
            </p>
          ))}
        </div>
        <aside className="grid h-fit min-w-0 grid-cols-[minmax(0,1fr)] gap-3 lg:sticky lg:top-6 lg:max-h-[calc(100dvh-3rem)] lg:overflow-y-auto">
          {questionnaire.draft && <Publish questionnaire={questionnaire} faults={faults.length} />}
          <fieldset className="join">
            <legend className="sr-only">What is shown beside</legend>
            {(['write', 'try'] as const).map((choice) => (
              <button
                key={choice}
                type="button"
                aria-pressed={view === choice}
                className={`press join-item -ml-px ${view === choice ? 'press-go' : ''}`}
                onClick={() => setView(choice)}
              >
                {choice === 'write' ? 'The ways through' : 'As a client answers'}
              </button>
            ))}
          </fieldset>
          <label className="flex items-center gap-2 text-[14px] text-soft">
            <span className="shrink-0">for</span>
            <select
              className="field min-h-[34px] py-1 font-semibold"
              value={service.id}
              onChange={(event) => setChosen(event.target.value)}
            >
              {(users.length > 0 ? users : practice.services).map((choice) => (
                <option key={choice.id} value={choice.id}>
                  {choice.name}
                </option>
              ))}
            </select>
          </label>
          {view === 'write' ? (
            <>
              <ProofOfPaths
                practice={practice}
                questionnaire={written}
                check={check}
                progress={progress}
                stop={stop}
                onJump={jump}
              />
              {questionnaire.draft && <Differences questionnaire={questionnaire} onJump={jump} />}
              {questionnaire.draft && <Replayed id={id} />}
            </>
          ) : (
            <Live practice={practice} questionnaire={written} service={service} />
          )}
        </aside>
      </div>
    </SettingsPage>
  )
}

/** Which version is at the door, and which is being written. */
function standing({ version, draft }: Questionnaire, used: boolean): string {
  const there = used ? 'at your door' : 'at no door yet'
  return draft
    ? `Version ${version} is ${there}; you are writing version ${version + 1}.`
    : `Version ${version}, ${there}${used ? ' as it stands' : ''}.`
}

/** As many as a questionnaire can have. */
const MOST_QUESTIONS = 500

const NEW_QUESTION: Question = { id: 'question', kind: 'short', text: 'A new question', required: false }

/** Questions that have been kept, to be used again. */
function Kept({ practice, onUse }: { practice: Practice; onUse: (question: Question) => void }) {
  const { library = [] } = practice
  if (library.length === 0) return null
  return (
    <label className="flex items-center gap-2 text-[14px] text-soft">
      or one I have kept
      <select
        className="field min-h-[34px] w-auto max-w-[260px] py-1"
        value=""
        onChange={(event) => {
          const kept = library.find((kept) => kept.id === event.target.value)
          if (kept) onUse(kept)
        }}
      >
        <option value="">choose …</option>
        {library.map((kept) => (
          <option key={kept.id} value={kept.id}>
            {kept.text}
          </option>
        ))}
      </select>
    </label>
  )
}
