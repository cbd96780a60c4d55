import { type FormEvent, type ReactNode, useCallback, useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { Emblem } from '../../theme/mark.tsx'
import { FounderFields, nobodyYet } from '../first/founder.tsx'
import { newPractice } from '../first/new-practice.ts'
import { PlainField } from '../parts/plain-field.tsx'
import { Restoring } from '../restore/restoring.tsx'
import { arriveByCode, beginOwn, lookRound } from '../sync/acts.ts'
import { useRelayStatus } from '../sync/use-status.ts'

/** An empty desk: begin a practice, open a backup, or look round the demo. */
export function Begin({ code }: { code: string | undefined }) {
  const status = useRelayStatus()
  const demo = status?.demo !== undefined
  const [problem, setProblem] = useState<string>()
  const [busy, setBusy] = useState(false)
  const [beginning, setBeginning] = useState(false)
  const [typed, setTyped] = useState('')

  const run = useCallback((work: () => Promise<unknown>): void => {
    setProblem(undefined)
    setBusy(true)
    work()
      .catch((error: unknown) => setProblem(error instanceof Error ? error.message : String(error)))
      .finally(() => setBusy(false))
  }, [])
  useEffect(() => {
    // The address printed at start pairs this browser, and in the demo brings its practice along.
    if (code && demo) run(() => arriveByCode(code))
  }, [code, demo, run])

  return (
    <main className="mx-auto min-h-dvh max-w-[860px] px-6 py-12">
      <title>Acolhida</title>
      <div className="flex items-center gap-3">
        <Emblem size={44} />
        <h1>Acolhida</h1>
      </div>
      <p className="mt-3 max-w-[600px] text-[17px]">
        This desk is empty. Everything you put into it stays in this browser and in files you keep; only what
        your clients need goes out to your door.
      </p>
      {problem && (
        <p role="alert" className="note mt-4 bg-clay-soft whitespace-pre-line text-clay-ink">
          {problem}
        </p>
      )}
      {beginning ? (
        <BeginPractice
          code={code}
          free={status?.demo !== undefined && !status.paired && code !== undefined}
          run={run}
          busy={busy}
        />
      ) : (
        <div className="mt-7 grid gap-4 md:grid-cols-3">
          <Way
            title="Begin a practice"
            text="Your name, your zone, your currency; ordinary hours and a first service are there to be changed."
          >
            <button
              type="button"
              className="press press-go"
              disabled={busy}
              onClick={() => setBeginning(true)}
            >
              Begin
            </button>
          </Way>
          <Way title="Open a backup" text="A file you have kept brings everything back as it was.">
            <Restoring replaces={false} label="Choose a file" />
          </Way>
          {demo && (
            <Way
              title="Look round the demo"
              text={`The practice of Iria Montalvar, a voice coach in Coimbra. She and her clients are invented.${status?.paired ? ' Another desk is paired with its relay; looking round here cuts that one off.' : ''}`}
            >
              <form
                className="grid gap-3"
                onSubmit={(event) => {
                  event.preventDefault()
                  run(() => lookRound('others', typed))
                }}
              >
                <PlainField
                  label="The code the relay printed when it started"
                  required
                  value={typed}
                  onChange={setTyped}
                />
                <button type="submit" className="press justify-self-start" disabled={busy}>
                  Look round
                </button>
              </form>
            </Way>
          )}
        </div>
      )}
    </main>
  )
}

const Way = ({ title, text, children }: { title: string; text: string; children: ReactNode }) => (
  <section className="sheet flex flex-col gap-3 p-5">
    <h2>{title}</h2>
    <p className="grow">{text}</p>
    <div>{children}</div>
  </section>
)

function BeginPractice({
  code,
  free,
  run,
  busy,
}: {
  code: string | undefined
  /** The demo's relay is there, and no desk is paired with it. */
  free: boolean
  run: (work: () => Promise<unknown>) => void
  busy: boolean
}) {
  const navigate = useNavigate()
  const [about, setAbout] = useState(nobodyYet)
  const begin = (event: FormEvent): void => {
    event.preventDefault()
    run(async () => {
      await beginOwn(newPractice(about), free && code ? { takesDemo: true, code } : { code })
      await navigate('/first/hours')
    })
  }
  return (
    <form className="sheet mt-6 grid max-w-[640px] gap-4 p-5" onSubmit={begin}>
      <FounderFields about={about} onChange={setAbout} />
      <button type="submit" className="press press-go justify-self-start" disabled={busy}>
        Begin the practice
      </button>
    </form>
  )
}
