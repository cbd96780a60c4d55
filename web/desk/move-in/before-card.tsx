import type { Instant } from '@acolhida/core/time'
import type { Desk } from '../data/live.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { when } from '../parts/words.ts'
import { Card } from '../request/card.tsx'

/** What came from other places before, each file with the way to take all of it out again. */
export function BeforeCard<B extends { id: string; at: Instant }>({
  desk,
  title,
  nothing,
  batches,
  words,
  takeOut,
  stays = () => false,
}: {
  desk: Desk
  title: string
  nothing: string
  /** Nothing while they are looked up. */
  batches: readonly B[] | undefined
  words: (batch: B) => string
  takeOut: (batch: B) => Promise<unknown>
  /** Whether none of it can go any more. */
  stays?: (batch: B) => boolean
}) {
  const act = useAct()
  return (
    <div className="h-fit">
      <Card title={title}>
        {batches?.length === 0 && <p className="mt-2 text-soft">{nothing}</p>}
        <ul className="mt-2 grid gap-3">
          {batches?.map((batch) => (
            <li key={batch.id}>
              <b className="block">{when(desk.practice, batch.at)}</b>
              <span className="block text-[14px] text-soft wrap-anywhere">{words(batch)}</span>
              <button
                type="button"
                className="press press-quiet mt-1"
                disabled={stays(batch) || act.busy}
                onClick={() => act.run(() => takeOut(batch))}
              >
                Take them out again
              </button>
            </li>
          ))}
        </ul>
        <ProblemNote of={act} />
      </Card>
    </div>
  )
}
