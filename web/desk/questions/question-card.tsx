import {
  asksSomething,
  conditionWords,
  type DraftFault,
  freeId,
  kindOf,
  lookingAt,
  type Question,
  removeQuestion,
  type Sheet,
} from '@acolhida/core/questions'
import type { Finding } from '@acolhida/core/questions/paths'
import { Copy, Library, LockKeyhole, Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { useSortableRow } from '../parts/sortable-list.tsx'
import { changeDraft } from './draft.ts'
import { QuestionFields } from './question-fields.tsx'
import { RowHead } from './row-head.tsx'

/** One question of the version being written: what it asks and when, and opened everything that can be said about it. */
export function QuestionCard({
  id,
  sheet,
  question,
  number,
  depth,
  open,
  onOpen,
  onInsert,
  faults,
  findings,
}: {
  /** Of the questionnaire. */
  id: string
  sheet: Sheet
  question: Question
  number: number
  /** How deep it lies in the follow-ups. */
  depth: number
  open: boolean
  onOpen: (open: boolean) => void
  /** Puts a new question below this one. */
  onInsert: () => Promise<void>
  faults: readonly DraftFault[]
  findings: readonly Finding[]
}) {
  const { box, handle } = useSortableRow(question.id)
  const section = question.kind === 'section'
  return (
    <li {...box} id={`at-${question.id}`} className="scroll-mt-6">
      <section
        className={`sheet p-3 ${section ? 'border-l-4 border-l-leaf' : ''}`}
        style={{ marginLeft: Math.min(depth, 4) * 22 }}
        aria-label={question.text}
      >
        <RowHead
          what="question"
          number={number}
          handle={handle}
          open={open}
          onOpen={onOpen}
          acts={<Acts id={id} sheet={sheet} question={question} number={number} onInsert={onInsert} />}
        >
          <span className={section ? 'font-serif text-[17px] font-semibold' : 'font-semibold'}>
            <span className="figures mr-2 text-soft">{number}</span>
            {question.text}
          </span>
          <span className="block text-[13px] text-soft">
            {kindOf(question).name}
            {asksSomething(question) && (question.required ? ' · must be answered' : ' · if they like')}
            {question.private && (
              <>
                {' · '}
                <LockKeyhole size={12} aria-hidden="true" className="inline align-[-1px]" /> private
              </>
            )}
            {question.when && <> · asked when {conditionWords(question.when, sheet.questions)}</>}
          </span>
        </RowHead>
        {open && <QuestionFields id={id} sheet={sheet} question={question} number={number} />}
        <Said faults={faults} findings={findings} />
      </section>
    </li>
  )
}

function Acts({
  id,
  sheet,
  question,
  number,
  onInsert,
}: {
  id: string
  sheet: Sheet
  question: Question
  number: number
  onInsert: () => Promise<void>
}) {
  const looking = lookingAt(sheet, question.id)
  const many = looking.questions.length + looking.rules.length
  const [asked, setAsked] = useState(false)
  const remove = (): Promise<void> =>
    changeDraft(id, 'a question removed', (now) => removeQuestion(now, question.id))
  return (
    <span className="flex shrink-0 flex-wrap justify-end">
      <ActButton
        className="press press-quiet px-2"
        aria-label={`Insert a question below ${number}`}
        title="A new question below"
        onAct={onInsert}
      >
        <Plus size={16} aria-hidden="true" />
      </ActButton>
      <ActButton
        className="press press-quiet px-2"
        aria-label={`Copy question ${number}`}
        onAct={() =>
          changeDraft(id, 'a question copied', (now) => {
            const at = now.questions.findIndex((other) => other.id === question.id)
            const taken = now.questions.map((question) => question.id)
            const copy = { ...question, id: freeId(taken, `${question.id}-copy`) }
            return { ...now, questions: now.questions.toSpliced(at + 1, 0, copy) }
          })
        }
      >
        <Copy size={16} aria-hidden="true" />
      </ActButton>
      <ActButton
        className="press press-quiet px-2"
        aria-label={`Keep question ${number} in my library`}
        title="Keep it, to use it again"
        onAct={() =>
          changePractice(db, 'a question kept', (p) => {
            const library = p.library ?? []
            const { when: _, ...rest } = question
            const taken = library.map((kept) => kept.id)
            return { ...p, library: [...library, { ...rest, id: freeId(taken, question.id) } as Question] }
          })
        }
      >
        <Library size={16} aria-hidden="true" />
      </ActButton>
      <ActButton
        className="press press-no px-2"
        aria-label={`Remove question ${number}`}
        aria-expanded={many > 0 ? asked : undefined}
        onAct={async () => {
          if (many > 0 && !asked) setAsked(true)
          else await remove()
        }}
      >
        <Trash2 size={16} aria-hidden="true" />
      </ActButton>
      {asked && (
        <span className="note tag-look mt-1 w-full text-left text-[14px]" role="status">
          {[...looking.questions.map(({ text }) => text), ...looking.rules.map(({ name }) => name)]
            .map((name) => `“${name}”`)
            .join(', ')}{' '}
          {many === 1 ? 'looks at it and stays unfinished' : 'look at it and stay unfinished'} until you say
          what else counts.{' '}
          <ActButton className="way" onAct={remove}>
            Remove it all the same
          </ActButton>
        </span>
      )}
    </span>
  )
}

/** What is wrong with a place, and what the check has found there. */
export function Said({ faults, findings }: { faults: readonly DraftFault[]; findings: readonly Finding[] }) {
  return (
    <>
      {faults.map((fault) => (
        <p key={fault.message} role="alert" className="mt-2 text-[14px] font-semibold text-clay">
          {fault.message}
        </p>
      ))}
      {findings.map((finding) => (
        <p
          key={finding.kind + finding.message}
          className={
            finding.grade === 'error' ? 'note tag-closed mt-2 text-[14px]' : 'mt-1.5 text-[13px] text-soft'
          }
        >
          {finding.message}
        </p>
      ))}
    </>
  )
}
