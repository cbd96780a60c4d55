import type { Questionnaire } from '@acolhida/core/questions'
import { freeId, kindOf, questionCount } from '@acolhida/core/questions'
import { BEGINNINGS } from '@acolhida/core/questions/beginnings'
import { Copy, Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { useDesk } from '../data/live.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { SettingsPage } from '../parts/settings-page.tsx'
import { type FhirRead, OpenFhir } from './fhir-file.tsx'

/** What is asked before times are shown: the questionnaires of the practice. */
export function QuestionsPage() {
  const { practice } = useDesk()
  const navigate = useNavigate()
  const { library = [] } = practice
  const [read, setRead] = useState<FhirRead>()
  const taken = practice.questionnaires.map((questionnaire) => questionnaire.id)
  const act = useAct()
  const add = (fresh: Questionnaire): void =>
    act.run(
      () =>
        changePractice(db, `${fresh.name} added`, (p) => ({
          ...p,
          questionnaires: [...p.questionnaires, fresh],
        })),
      () => void navigate(`/questions/${fresh.id}`),
    )
  return (
    <SettingsPage
      title="Questions"
      line="What you must know first. Whoever does not match is shown no times."
    >
      <ul className="grid max-w-[820px] gap-3">
        {practice.questionnaires.length === 0 && (
          <li className="sheet p-5">Questionnaires will stand here. Begin with one question that matters.</li>
        )}
        {practice.questionnaires.map((questionnaire) => {
          const users = practice.services.filter((service) => service.questionnaire === questionnaire.id)
          return (
            <li key={questionnaire.id} className="sheet flex items-center justify-between gap-4 p-4">
              <div className="min-w-0">
                <h2>
                  <Link to={`/questions/${questionnaire.id}`} className="underline-offset-3 hover:underline">
                    {questionnaire.name}
                  </Link>
                </h2>
                <p className="mt-0.5 text-[14px] text-soft">
                  {questionCount(questionnaire.questions)}{' '}
                  {questionCount(questionnaire.questions) === 1 ? 'question' : 'questions'} ·{' '}
                  {questionnaire.rules.length} {questionnaire.rules.length === 1 ? 'rule' : 'rules'} · version{' '}
                  {questionnaire.version}
                  {users.length > 0
                    ? ` · for ${users.map((service) => service.name).join(', ')}`
                    : ' · for no service yet'}
                </p>
              </div>
              <div className="flex shrink-0 items-center gap-1">
                {questionnaire.draft && <span className="tag tag-look mr-2">a draft</span>}
                <button
                  type="button"
                  className="press press-quiet px-2"
                  aria-label={`Copy ${questionnaire.name}`}
                  onClick={() => {
                    const { draft: _, past: __, ...rest } = questionnaire
                    const id = freeId(taken, `${questionnaire.id}-copy`)
                    add({ ...rest, id, name: `${questionnaire.name}, a copy`, version: 1 })
                  }}
                >
                  <Copy size={16} aria-hidden="true" />
                </button>
                <ActButton
                  className="press press-no px-2"
                  aria-label={`Remove ${questionnaire.name}`}
                  disabled={users.length > 0}
                  onAct={() =>
                    changePractice(db, `${questionnaire.name} removed`, (p) => ({
                      ...p,
                      questionnaires: p.questionnaires.filter((other) => other.id !== questionnaire.id),
                    }))
                  }
                >
                  <Trash2 size={16} aria-hidden="true" />
                </ActButton>
              </div>
            </li>
          )
        })}
      </ul>
      <div className="mt-4 flex flex-wrap gap-2.5">
        <button
          type="button"
          className="press press-go"
          onClick={() =>
            add({
              id: freeId(taken, 'questions'),
              name: 'New questions',
              version: 1,
              questions: [{ id: 'brings', kind: 'long', text: 'What brings you here?', required: true }],
              rules: [],
              bands: [],
            })
          }
        >
          <Plus size={16} aria-hidden="true" /> Add questions
        </button>
        <OpenFhir taken={taken} onRead={setRead} />
      </div>
      <ProblemNote of={act} />
      {read && (
        <section className="sheet mt-4 max-w-[820px] p-4" aria-label="What was read">
          {'problem' in read ? (
            <p role="alert" className="font-semibold text-clay">
              {read.problem}
            </p>
          ) : (
            <>
              <h2>“{read.questionnaire.name}” has been read</h2>
              {read.unread.length > 0 && (
                <>
                  <p className="mt-1">What has no place here:</p>
                  <ul className="list-disc pl-5 text-[14px]">
                    {read.unread.map((text) => (
                      <li key={text}>{text}</li>
                    ))}
                  </ul>
                </>
              )}
              <button
                type="button"
                className="press press-go mt-3"
                onClick={() => {
                  add(read.questionnaire)
                  setRead(undefined)
                }}
              >
                Add {read.questionnaire.questions.length} questions as they are
              </button>
            </>
          )}
        </section>
      )}
      {library.length > 0 && (
        <section className="mt-8 max-w-[820px]" aria-labelledby="library">
          <h2 id="library">Questions I have kept</h2>
          <ul className="sheet mt-2 divide-y divide-line px-4">
            {library.map((kept) => (
              <li key={kept.id} className="flex items-center gap-3 py-2">
                <span className="min-w-0 grow">
                  {kept.text} <span className="text-[14px] text-soft">{kindOf(kept).name}</span>
                </span>
                <ActButton
                  className="press press-no px-2"
                  aria-label={`No longer keep “${kept.text}”`}
                  onAct={() =>
                    changePractice(db, 'a kept question removed', ({ library: before = [], ...p }) => {
                      const left = before.filter((question) => question.id !== kept.id)
                      return left.length > 0 ? { ...p, library: left } : p
                    })
                  }
                >
                  <Trash2 size={16} aria-hidden="true" />
                </ActButton>
              </li>
            ))}
          </ul>
        </section>
      )}
      <section className="mt-8 max-w-[820px]" aria-labelledby="starts">
        <h2 id="starts">Begin with</h2>
        <ul className="mt-2 grid gap-3 sm:grid-cols-2">
          {BEGINNINGS.map(({ questionnaire, about }) => (
            <li key={questionnaire.id} className="sheet flex flex-col items-start gap-2 p-4">
              <h3>{questionnaire.name}</h3>
              <p className="grow text-[14px] text-soft">{about}</p>
              <button
                type="button"
                className="press"
                onClick={() => add({ ...questionnaire, id: freeId(taken, questionnaire.id) })}
              >
                Use “{questionnaire.name}”
              </button>
            </li>
          ))}
        </ul>
      </section>
    </SettingsPage>
  )
}
