import { type Currency, money } from '@acolhida/core/money'
import type { Practice, Service } from '@acolhida/core/practice'
import { type Answers, asked, newcomer, type Questionnaire, readAnswers } from '@acolhida/core/questions'
import { nearestChange } from '@acolhida/core/questions/nearest'
import type { PathCheck } from '@acolhida/core/questions/paths'
import { useEffect, useRef, useState } from 'react'
import { QuestionField } from '../../questions/question-field.tsx'
import { WhatItComesTo } from '../diary/ask-them.tsx'
import { NearestChange } from '../parts/nearest-change.tsx'
import { currencyOf } from '../parts/words.ts'
import type { PathTold, PathWish } from './paths.worker.ts'
import { QuestionMap } from './question-map.tsx'

/** How long typing must rest before the check begins anew, in ms. */
const REST = 350

/** The check of a draft, in a worker: a newer draft ends the one under way, and nothing waits for it. */
export function usePathCheck(
  questionnaire: Questionnaire,
  service: Service,
  currency: Currency,
): { check: PathCheck | undefined; progress: { done: number; of: number } | undefined; stop: () => void } {
  const [check, setCheck] = useState<PathCheck>()
  const [progress, setProgress] = useState<{ done: number; of: number }>()
  const running = useRef<Worker>(undefined)
  useEffect(() => {
    let worker: Worker | undefined
    const timer = setTimeout(() => {
      worker = new Worker(new URL('./paths.worker.ts', import.meta.url), { type: 'module' })
      running.current = worker
      worker.addEventListener('message', ({ data }: MessageEvent<PathTold>) => {
        if ('check' in data) {
          setCheck(data.check)
          setProgress(undefined)
          worker?.terminate()
        } else setProgress({ done: data.done, of: data.of })
      })
      worker.postMessage({ questionnaire, service, currency } satisfies PathWish)
    }, REST)
    return () => {
      clearTimeout(timer)
      worker?.terminate()
    }
  }, [questionnaire, service, currency])
  const stop = (): void => {
    running.current?.terminate()
    setProgress(undefined)
  }
  return { check, progress, stop }
}

const ENDS = [
  ['fits', 'fits', 'bg-leaf'],
  ['look', 'look first', 'bg-sun'],
  ['enquiry', 'an enquiry', 'bg-tile'],
  ['closed', 'not a match', 'bg-clay'],
] as const

const percent = (share: number): string => `${share > 0 && share < 0.01 ? '< 1' : Math.round(share * 100)} %`

/** Where the ways through the questions end, how long they are, and what has been found. */
export function ProofOfPaths({
  practice,
  questionnaire,
  check,
  progress,
  stop,
  onJump,
}: {
  practice: Practice
  questionnaire: Questionnaire
  check: PathCheck | undefined
  progress: { done: number; of: number } | undefined
  stop: () => void
  /** Goes to a question or a rule. */
  onJump: (id: string) => void
}) {
  const currency = currencyOf(practice.profile.currency)
  const nameOf = (id: string): string =>
    questionnaire.questions.find((question) => question.id === id)?.text ??
    questionnaire.rules.find((rule) => rule.id === id)?.name ??
    ''
  return (
    <section className="sheet p-4" aria-label="The ways through" aria-live="polite">
      <h2>The ways through</h2>
      {progress ? (
        <p className="mt-2 flex items-center justify-between text-[14px] text-soft">
          Looking at question {progress.done} of {progress.of} …
          <button type="button" className="way" onClick={stop}>
            Stop
          </button>
        </p>
      ) : (
        !check && <p className="mt-2 text-[14px] text-soft">Not looked at yet.</p>
      )}
      {check?.proven && (
        <>
          <div className="mt-3 flex h-5 overflow-hidden rounded-md" aria-hidden="true">
            {ENDS.map(([end, , look]) =>
              check.shares[end] > 0 ? (
                <span
                  key={end}
                  className={look}
                  style={{ width: `${Math.max(1.5, check.shares[end] * 100)}%` }}
                />
              ) : null,
            )}
          </div>
          <ul className="mt-2 grid gap-0.5 text-[14px]">
            {ENDS.filter(([end]) => check.shares[end] > 0).map(([end, name, look]) => (
              <li key={end} className="flex items-center gap-2">
                <span className={`inline-block size-3 rounded-sm ${look}`} aria-hidden="true" />
                {name}: <b>{percent(check.shares[end])}</b> of the ways
              </li>
            ))}
          </ul>
          <QuestionMap questionnaire={questionnaire} check={check} onJump={onJump} />
          <p className="mt-2 text-[14px]">
            {check.shortest === check.longest ? check.longest : `${check.shortest} to ${check.longest}`}{' '}
            questions · {fromTo(check.minutes, (minutes) => `${minutes} min`)} ·{' '}
            {fromTo(check.price, (price) => money(price, currency))}
          </p>
          <p className="mt-1 text-[13px] text-soft">
            Every way a newcomer can answer has been checked: {waysWords(check.ways)}.
          </p>
        </>
      )}
      {check && check.findings.length > 0 && (
        <ul className="mt-3 grid gap-1.5 text-[14px]">
          {check.findings.map((finding) => {
            const place = finding.question ?? finding.rule
            return (
              <li key={finding.kind + (place ?? '')}>
                {place ? (
                  <button type="button" className="way text-left" onClick={() => onJump(place)}>
                    {nameOf(place)}
                  </button>
                ) : null}{' '}
                {finding.message}
              </li>
            )
          })}
        </ul>
      )}
      {check?.proven && check.findings.length === 0 && (
        <p className="mt-2 text-[14px]">Nothing is broken: every question and every rule is reached.</p>
      )}
    </section>
  )
}

/** How many ways there are, as one would say it. */
const waysWords = (ways: number): string => {
  const many = new Intl.NumberFormat('en-GB', {
    notation: 'compact',
    compactDisplay: 'long',
    maximumFractionDigits: 0,
  })
  return ways < 1e15 ? `${many.format(Math.round(ways))} of them` : 'more of them than one could count'
}

/** From the least to the greatest; where there is no greatest, that it grows without end. */
const fromTo = (
  { least, most }: { least: number; most: number },
  words: (value: number) => string,
): string => {
  if (least === most) return words(most)
  return Number.isFinite(most) ? `${words(least)} to ${words(most)}` : `${words(least)} and more, without end`
}

/** The questions as a client answers them, with what the rules make of it changing as one goes. */
export function Live({
  practice,
  questionnaire,
  service,
}: {
  practice: Practice
  questionnaire: Questionnaire
  service: Service
}) {
  const [answers, setAnswers] = useState<Answers>({})
  const reading = readAnswers(service, questionnaire, answers, newcomer)
  const { questions } = asked(questionnaire.questions, answers, newcomer)
  const nearest = nearestChange(service, questionnaire, answers, newcomer)
  return (
    <section className="grid gap-3" aria-label="As a client answers">
      <h2>As a client answers</h2>
      <WhatItComesTo practice={practice} reading={reading} />
      <NearestChange differences={nearest} questions={questionnaire.questions} />
      {questions.map((question) => (
        <QuestionField
          key={question.id}
          question={question}
          value={answers[question.id]}
          onAnswer={(value) =>
            setAnswers(({ [question.id]: _, ...rest }) =>
              value === undefined ? rest : { ...rest, [question.id]: value },
            )
          }
        />
      ))}
      <button type="button" className="press justify-self-start" onClick={() => setAnswers({})}>
        Begin again
      </button>
    </section>
  )
}
