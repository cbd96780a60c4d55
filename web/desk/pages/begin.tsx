import { beginPractice, type Practice } from '@acolhida/core/practice'
import { BadData, letIn, practice as practiceSchema } from '@acolhida/core/schemas'
import { type FormEvent, type ReactNode, useCallback, useEffect, useState } from 'react'
import { newKey } from '../../relay-client/client.ts'
import { Emblem } from '../../theme/mark.tsx'
import { importBackup } from '../data/backup.ts'
import { db } from '../data/db.ts'
import { Restoring } from '../restore/restoring.tsx'
import { CURRENCIES, zonesWith } from '../settings/choices.ts'
import type { Option } from '../settings/setting.ts'
import { arriveByCode, lookRound, pairWith } from '../sync/acts.ts'
import { deskRelay } from '../sync/relay.ts'

/** An empty desk: begin a practice, open a backup, or look round the demo. */
export function Begin({ code }: { code: string | undefined }) {
  const [demo, setDemo] = useState(false)
  const [taken, setTaken] = useState(false)
  const [problem, setProblem] = useState<string>()
  const [busy, setBusy] = useState(false)
  const [beginning, setBeginning] = useState(false)

  const run = useCallback((work: () => Promise<unknown>): void => {
    setProblem(undefined)
    setBusy(true)
    work()
      .catch((error: unknown) => setProblem(error instanceof Error ? error.message : String(error)))
      .finally(() => setBusy(false))
  }, [])
  useEffect(() => {
    deskRelay
      .status()
      .then((status) => {
        setDemo(status.demo)
        setTaken(status.paired)
      })
      .catch(() => setDemo(false))
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
        <BeginPractice code={code} run={run} busy={busy} />
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
              text={`The practice of Iria Montalvar, a voice coach in Coimbra. She and her clients are invented.${taken ? ' Another desk is paired with its deskRelay; looking round here cuts that one off.' : ''}`}
            >
              <button type="button" className="press" disabled={busy} onClick={() => run(lookRound)}>
                Look round
              </button>
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
  run,
  busy,
}: {
  code: string | undefined
  run: (work: () => Promise<unknown>) => void
  busy: boolean
}) {
  const [about, setAbout] = useState({
    name: '',
    email: '',
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC',
    currency: 'EUR',
  })
  const begin = (event: FormEvent): void => {
    event.preventDefault()
    run(async () => {
      const slug = slugOf(about.name)
      // The door is closed until it is opened: nobody comes in while things are still being put up.
      const begun = beginPractice({ id: newKey().replaceAll(/[_-]/g, 'x'), slug, ...about })
      const practice: Practice = { ...begun, door: { open: false, text: '' } }
      try {
        letIn(practiceSchema, practice, 'The practice')
      } catch (error) {
        if (error instanceof BadData) throw new Error(error.faults.map((fault) => fault.message).join('\n'))
        throw error
      }
      await importBackup(db, {
        format: 'acolhida-backup',
        version: 1,
        practice,
        people: [],
        bookings: [],
        enquiries: [],
        mails: [],
        sessions: [],
        salt: newKey(),
        revision: 0,
        cursor: 0,
      })
      if (code) await pairWith(code, false)
    })
  }
  const field = (name: keyof typeof about, label: string, type = 'text') => (
    <div>
      <label className="ask" htmlFor={`begin-${name}`}>
        {label}
      </label>
      <input
        id={`begin-${name}`}
        type={type}
        required
        className="field mt-1"
        value={about[name]}
        onChange={(event) => setAbout({ ...about, [name]: event.target.value })}
      />
    </div>
  )
  const choice = (name: 'zone' | 'currency', label: string, options: readonly Option[]) => (
    <div>
      <label className="ask" htmlFor={`begin-${name}`}>
        {label}
      </label>
      <select
        id={`begin-${name}`}
        className="field mt-1"
        value={about[name]}
        onChange={(event) => setAbout({ ...about, [name]: event.target.value })}
      >
        {options.map(({ value, name }) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </select>
    </div>
  )
  return (
    <form className="sheet mt-6 grid max-w-[600px] gap-4 p-5 sm:grid-cols-2" onSubmit={begin}>
      {field('name', 'Your name')}
      {field('email', 'Where clients’ answers go', 'email')}
      {choice('zone', 'Your time zone', zonesWith(about.zone))}
      {choice('currency', 'Your currency', CURRENCIES)}
      <button type="submit" className="press press-go sm:col-span-2" disabled={busy}>
        Begin the practice
      </button>
    </form>
  )
}

/** A name as the last part of an address: small letters, digits and dashes. */
const slugOf = (name: string): string =>
  name
    .normalize('NFD')
    .replaceAll(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-+|-+$/g, '')
    .slice(0, 60) || 'practice'
