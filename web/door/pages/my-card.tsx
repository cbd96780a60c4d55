import type { LinkView } from '@acolhida/core/contract'
import { say } from '../parts/say.ts'
import { AtTill } from './at-till.tsx'

/** The card that is asked for, or is here: never more of its number than how it ends. */
export function MyCard({ view, secret }: { view: LinkView; secret: string }) {
  const { card } = view
  if (!card) return null
  return (
    <section className="sheet mt-4 p-5">
      <h2>{say('my.card')}</h2>
      {'asked' in card ? (
        <>
          <p className="mt-2 mb-3">{say(card.asked === 'keep' ? 'my.card-keep' : 'my.card-check')}</p>
          <AtTill view={view} secret={secret} what="card" />
        </>
      ) : (
        <p className="mt-2">
          {say(card.kept ? 'my.card-kept' : 'my.card-seen', { ends: card.ends, expires: card.expires })}
        </p>
      )}
    </section>
  )
}
