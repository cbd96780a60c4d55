import { Emblem } from '../../theme/mark.tsx'

/** An address that leads nowhere, or a door that does not answer. */
export function Nowhere({ message, again }: { message?: string; again?: () => void }) {
  return (
    <main className="door mx-auto flex min-h-dvh max-w-md flex-col justify-center gap-4 px-6">
      <title>Acolhida</title>
      <Emblem size={44} />
      <h1>There is no door here</h1>
      <p>{message ?? 'Please check the link you were given; a letter may be missing.'}</p>
      {again && (
        <button type="button" className="press self-start" onClick={again}>
          Try again
        </button>
      )}
    </main>
  )
}
