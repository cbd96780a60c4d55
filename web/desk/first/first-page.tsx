import { type FormEvent, type ReactNode, useEffect, useRef } from 'react'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { FIRST_STEPS } from './steps.ts'

/** One step of the first path: what it is for, its few fields, and the way on. */
export function FirstPage({
  step,
  heading,
  line,
  go = 'Go on',
  onGo,
  onDone,
  aside,
  children,
}: {
  step: (typeof FIRST_STEPS)[number]['id'] | 'open'
  heading: string
  line: string
  go?: string
  /** Keeps what was typed. */
  onGo: () => unknown
  onDone?: () => void
  /** Beside the way on. */
  aside?: ReactNode
  children: ReactNode
}) {
  const act = useAct()
  const head = useRef<HTMLHeadingElement>(null)
  // biome-ignore lint/correctness/useExhaustiveDependencies: another step is another page, and begins at its head.
  useEffect(() => head.current?.focus(), [step])
  const submit = (event: FormEvent): void => {
    event.preventDefault()
    act.run(onGo, onDone)
  }
  const at = FIRST_STEPS.findIndex(({ id }) => id === step)
  const reached = step === 'open' ? FIRST_STEPS.length : at
  return (
    <form className="max-w-[640px]" onSubmit={submit}>
      <title>{`${heading} · Acolhida`}</title>
      <ol className="mb-6 flex flex-wrap gap-x-1 gap-y-2 text-[13px]" aria-label="First steps">
        {FIRST_STEPS.map(({ id, name }, i) => (
          <li
            key={id}
            aria-current={i === at ? 'step' : undefined}
            className={`border-b-[3px] px-3 py-1 ${i < reached ? 'border-leaf text-soft' : i === at ? 'border-tile font-semibold' : 'border-line border-dashed text-soft'}`}
          >
            {name}
            {i < reached && <span className="sr-only"> (done)</span>}
          </li>
        ))}
      </ol>
      <h1 ref={head} tabIndex={-1} className="outline-none">
        {heading}
      </h1>
      <p className="mt-1 text-soft">{line}</p>
      <div className="sheet mt-5 grid gap-4 p-5">{children}</div>
      <div className="mt-4 flex flex-wrap items-center gap-3">
        <button type="submit" className="press press-go" disabled={act.busy}>
          {go}
        </button>
        {aside}
      </div>
      <ProblemNote of={act} />
    </form>
  )
}
