import type { Clocks, Instant } from '@acolhida/core/time'
import { startWords } from './clocks.ts'
import { say } from './say.ts'

/** On to the terms with the time that is kept. */
export const GoOn = ({
  start,
  clocks,
  go,
}: {
  start: Instant
  clocks: Clocks
  go: (step: 'terms') => void
}) => (
  <button type="button" data-go-on className="press press-go w-full" onClick={() => go('terms')}>
    {say('time.go-on', { when: startWords(start, clocks) })}
  </button>
)
