import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { useDesk } from '../data/live.ts'
import { OUTCOME } from '../parts/words.ts'
import type { ReplayTold, ReplayWish } from './replay.worker.ts'

/** How long typing must rest before earlier answers are read again, in ms. */
const REST = 600
/** How many of those that would have been otherwise are named. */
const NAMED = 40

/** Whose outcome, length or price the new version would change, of all who have answered before. */
export function Replayed({ id }: { id: string }) {
  const { practice } = useDesk()
  const [told, setTold] = useState<ReplayTold>()
  useEffect(() => {
    let worker: Worker | undefined
    const timer = setTimeout(() => {
      worker = new Worker(new URL('./replay.worker.ts', import.meta.url), { type: 'module' })
      worker.addEventListener('message', ({ data }: MessageEvent<ReplayTold>) => {
        setTold(data)
        worker?.terminate()
      })
      worker.postMessage({ practice, questionnaire: id } satisfies ReplayWish)
    }, REST)
    return () => {
      clearTimeout(timer)
      worker?.terminate()
    }
  }, [practice, id])
  if (!told || ('given' in told && told.given === 0)) return null
  return (
    <section className="sheet p-4 text-[14px]" aria-label="Earlier answers">
      <h2>Earlier answers</h2>
      {'problem' in told ? (
        <p role="alert" className="mt-1 font-semibold text-clay">
          They could not be read again: {told.problem}
        </p>
      ) : (
        <Changed {...told} />
      )}
    </section>
  )
}

function Changed({ given, changed }: Extract<ReplayTold, { given: number }>) {
  return (
    <>
      <p className="mt-1">
        {changed.length === 0
          ? `Read again, the ${given === 1 ? 'answers' : `answers of ${given} people`} come to the same.`
          : `For ${changed.length} of ${given} something else would have followed:`}
      </p>
      <ul className="mt-1 grid gap-1">
        {changed.slice(0, NAMED).map((changed) => (
          <li key={changed.id}>
            <Link className="way" to={`/arrivals/${changed.id}`}>
              {changed.name}
            </Link>
            : {changed.outcome && `${OUTCOME[changed.outcome.from]} → ${OUTCOME[changed.outcome.to]} `}
            {changed.minutes && `${changed.minutes.from} → ${changed.minutes.to} min `}
            {changed.price && 'another price'}
          </li>
        ))}
      </ul>
      {changed.length > NAMED && <p className="mt-1">And {changed.length - NAMED} more.</p>}
    </>
  )
}
