import {
  asksSomething,
  conditionWords,
  type DraftFault,
  freeId,
  kindOf,
  type Question,
  removeQuestion,
  type Sheet,
} from '@acolhida/core/questions'
import type { Finding } from '@acolhida/core/questions/paths'
import { Copy, Library, LockKeyhole, Trash2 } from 'lucide-react'
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
          acts={<Acts id={id} question={question} number={number} />}
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

function Acts({ id, question, number }: { id: string; question: Question; number: number }) {
  return (
    <span className="flex shrink-0">
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
        onAct={() => changeDraft(id, 'a question removed', (now) => removeQuestion(now, question.id))}
      >
        <Trash2 size={16} aria-hidden="true" />
      </ActButton>
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
          className={`note mt-2 text-[14px] ${finding.grade === 'error' ? 'tag-closed' : 'tag-look'}`}
        >
          {finding.message}
        </p>
      ))}
    </>
  )
}
