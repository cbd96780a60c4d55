import { troubleWords } from '@acolhida/core/contract'
import { Link } from 'react-router'

/** Says at the head of every page what is wrong with the relay, as long as it is. */
export function RelayTroubles({ troubles }: { troubles: string }) {
  return (
    <div role="alert" className="note mb-4 bg-clay-soft text-clay-ink">
      {troubles.split(' ').map((trouble) => (
        <p key={trouble}>
          {troubleWords(trouble)}
          {trouble.startsWith('mail.') && (
            <>
              {' '}
              <Link className="way" to="/outbox">
                What waits
              </Link>
            </>
          )}
        </p>
      ))}
    </div>
  )
}
