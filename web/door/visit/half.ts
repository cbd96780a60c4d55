import type { CourseView, StationView } from '@acolhida/core/contract'
import {
  type Answers,
  type AnswerValue,
  asked,
  asksSomething,
  newcomer,
  type Question,
} from '@acolhida/core/questions'
import { useCallback, useEffect, useRef, useState } from 'react'
import { RelayError } from '../../relay-client/client.ts'
import { doorRelay } from './relay.ts'
import type { OnYours } from './yours.ts'

/** How long after the last key it is kept, in ms. */
const WAIT = 900

/** Where answers are kept until they are sent: in this tab alone, or also at the relay. */
export type KeptHalf = 'kept-everywhere' | 'kept-here' | 'keeping' | undefined

interface Half {
  answers: Answers
  put: (question: string, value: AnswerValue | undefined) => void
  kept: KeptHalf
  /** What was kept before can't be opened by this link. */
  lost: boolean
  /** All of it has been sent. */
  whole: () => void
}

/** The answers as two pages have them, put together: what was changed here since both were the same counts. */
export function mergedHalves(base: Answers, mine: Answers, theirs: Answers): Answers {
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)
  const ids = new Set([...Object.keys(mine), ...Object.keys(theirs), ...Object.keys(base)])
  return Object.fromEntries(
    [...ids].flatMap((id): [string, AnswerValue][] => {
      const value = same(mine[id], base[id]) ? theirs[id] : mine[id]
      return value === undefined ? [] : [[id, value]]
    }),
  )
}

/** How many of the questions that are asked now are answered, and of how many. */
export function howFar(questions: readonly Question[], answers: Answers): { answered: number; of: number } {
  const wanted = asked(questions, answers, newcomer).questions.filter(asksSomething)
  return { answered: wanted.filter(({ id }) => answers[id] !== undefined).length, of: wanted.length }
}

const read = (name: string): Answers | undefined => {
  try {
    const text = sessionStorage.getItem(name)
    return text === null ? undefined : (JSON.parse(text) as Answers)
  } catch {
    return undefined
  }
}

/**
 * Answers that are not sent yet. They are kept in this tab as they are typed; with the key of the link also at the
 * relay, sealed, so that one can go on elsewhere. Where another page has kept more meanwhile, both are put together.
 */
export function useHalf({
  doing: { secret, half: key },
  course: { course },
  station,
  questions,
}: {
  doing: OnYours
  course: CourseView
  station: StationView
  questions: readonly Question[]
}): Half {
  const name = `acolhida-half ${course} ${station.id}`
  const [answers, setAnswers] = useState<Answers>(() => read(name) ?? station.known ?? {})
  const [kept, setKept] = useState<KeptHalf>()
  const [lost, setLost] = useState(false)
  const now = useRef(answers)
  /** What both had when it was kept last, and how often that was. */
  const base = useRef<{ n: number; answers: Answers }>({ n: 0, answers: station.known ?? {} })
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined)
  const sent = useRef(false)
  const change = useCallback(
    (next: Answers): void => {
      now.current = next
      setAnswers(next)
      sessionStorage.setItem(name, JSON.stringify(next))
    },
    [name],
  )

  const { half } = station
  /** Takes in what is kept at the relay. */
  const take = useCallback(
    async (theirs: NonNullable<StationView['half']>): Promise<boolean> => {
      if (!key || theirs.n <= base.current.n) return true
      const { openHalf } = await import('../../seal/half.ts')
      const opened = await openHalf(theirs.sealed, key)
      if (!opened) {
        setLost(true)
        return false
      }
      change(mergedHalves(base.current.answers, now.current, opened))
      base.current = { n: theirs.n, answers: opened }
      return true
    },
    [key, change],
  )
  useEffect(() => {
    if (half) void take(half)
  }, [half, take])

  const keep = useCallback(async (): Promise<void> => {
    if (!key || sent.current) {
      setKept('kept-here')
      return
    }
    setKept('keeping')
    const { sealHalf } = await import('../../seal/half.ts')
    for (let tries = 0; tries < 4; tries++) {
      const mine = now.current
      try {
        const { n } = await doorRelay.half(secret, {
          ...{ course, station: station.id, n: base.current.n },
          ...{ sealed: await sealHalf(mine, key), ...howFar(questions, mine) },
        })
        base.current = { n, answers: mine }
        setKept('kept-everywhere')
        return
      } catch (error) {
        if (!(error instanceof RelayError) || error.code !== 'half-elsewhere') break
        const view = await doorRelay.yours(secret)
        const theirs = view.courses
          .find((one) => one.course === course)
          ?.stations.find(({ id }) => id === station.id)?.half
        if (!theirs || !(await take(theirs))) break
      }
    }
    setKept('kept-here')
  }, [secret, key, course, station.id, questions, take])

  const put = (question: string, value: AnswerValue | undefined): void => {
    const { [question]: _, ...others } = now.current
    change(value === undefined ? others : { ...others, [question]: value })
    clearTimeout(timer.current)
    timer.current = setTimeout(() => void keep(), WAIT)
  }
  const whole = useCallback((): void => {
    sent.current = true
    clearTimeout(timer.current)
    sessionStorage.removeItem(name)
  }, [name])
  useEffect(() => () => clearTimeout(timer.current), [])
  return { answers, put, kept, lost, whole }
}
