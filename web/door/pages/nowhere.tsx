import { Emblem } from '../../theme/mark.tsx'
import { say } from '../parts/say.ts'

/** An address that leads nowhere, or a door that does not answer. */
export function NotThisAddress({ message, again }: { message?: string; again?: () => void }) {
  return (
    <main className="door mx-auto flex min-h-dvh max-w-md flex-col justify-center gap-4 px-6">
      <title>{say('nowhere')}</title>
      <Emblem size={44} />
      <h1>{say('nowhere')}</h1>
      <p>{message ?? say('nowhere.why')}</p>
      {again && (
        <button type="button" className="press self-start" onClick={again}>
          {say('try-again')}
        </button>
      )}
    </main>
  )
}
