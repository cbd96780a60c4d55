import { type ReactNode, useEffect, useState } from 'react'
import { useDesk } from '../data/live.ts'
import { ActButton } from '../parts/act.tsx'
import { saveFile } from '../parts/file.tsx'
import { RESTORED, Restoring } from '../restore/restoring.tsx'
import { writtenBackup } from '../restore/save-backup.ts'
import { lookRound, pairWith } from '../sync/acts.ts'
import { deskRelay } from '../sync/relay.ts'
import { useStanding } from '../sync/sync.ts'

/** What is to be said after the page has been loaded anew, once. */
function saidOnce(): string | undefined {
  const restored = sessionStorage.getItem(RESTORED)
  sessionStorage.removeItem(RESTORED)
  return restored ? 'Everything is as it was in the file. Pair this desk again to open the door.' : undefined
}

/** The desk itself: how it stands to the relay, and the files it is kept in. */
export function ThisDesk() {
  const { practice, connection, intentions } = useDesk()
  const standing = useStanding()
  const [message, setMessage] = useState(saidOnce)
  const [demo, setDemo] = useState(false)
  useEffect(() => {
    deskRelay
      .status()
      .then((status) => setDemo(status.demo))
      .catch(() => setDemo(false))
  }, [])
  return (
    <>
      <title>This desk · Acolhida</title>
      <h1>This desk</h1>
      <p className="mt-1 text-[14px] text-soft">
        Everything here is in this browser, and in the files you keep
      </p>
      <p
        role="status"
        className={message ? 'note mt-4 bg-tile-soft whitespace-pre-line text-tile-ink' : 'sr-only'}
      >
        {message}
      </p>
      <div className="mt-5 grid max-w-[980px] gap-5 lg:grid-cols-2">
        <Card title="The relay">
          <p>
            {standing === 'connected' && 'This desk and the relay are in step.'}
            {standing === 'connecting' && 'Looking for the relay …'}
            {standing === 'alone' &&
              'This desk is not paired with a relay yet, so there is no door. Everything else works.'}
            {standing === 'unreachable' &&
              'The relay can’t be reached. What you decide is kept here and passed on as soon as it answers.'}
            {standing === 'cut-off' &&
              'The relay no longer takes this desk: another one has been paired since, or it has been started anew.'}
          </p>
          {connection.gap && (
            <p className="note mt-3 bg-sun-soft text-sun-ink">
              The relay no longer has everything that happened since this desk last heard from it. What it
              still had is here.
            </p>
          )}
          {(standing === 'alone' || standing === 'cut-off') && (
            <Pairing onDone={(text) => setMessage(text)} />
          )}
        </Card>
        <Card title="Backup">
          <p>
            One file with everything: practice, people, requests with their records, messages. The key to the
            relay is not in it.
          </p>
          <ActButton
            className="press press-go mt-3"
            onAct={async () =>
              saveFile(`${practice.profile.slug}-backup.json`, 'application/json', await writtenBackup())
            }
            then={() => setMessage('The backup has been saved as a file.')}
          >
            Save a backup
          </ActButton>
        </Card>
        <Card title="Restore">
          <p>Puts a backup in place of everything in this browser.</p>
          <div className="mt-3">
            <Restoring
              replaces
              outstanding={intentions.filter(({ refused }) => !refused).length}
              label="Open a backup"
            />
          </div>
        </Card>
        {demo && (
          <Card title="The demo">
            <p>Brings the practice of Iria Montalvar here afresh, in place of what is here.</p>
            <ActButton
              className="press mt-3"
              onAct={lookRound}
              then={() => setMessage('This is the demo, as it was at the start.')}
            >
              Begin the demo afresh
            </ActButton>
          </Card>
        )}
      </div>
    </>
  )
}

const Card = ({ title, children }: { title: string; children: ReactNode }) => (
  <section className="sheet h-fit p-5">
    <h2 className="mb-2">{title}</h2>
    {children}
  </section>
)

function Pairing({ onDone }: { onDone: (text: string) => void }) {
  const [code, setCode] = useState('')
  const [replace, setReplace] = useState(false)
  const [problem, setProblem] = useState<string>()
  const pair = (): void => {
    setProblem(undefined)
    pairWith(code, replace)
      .then((result) => {
        if (result === 'paired') onDone('This desk is paired, and the door is open.')
        else setReplace(true)
      })
      .catch((error: Error) => setProblem(error.message))
  }
  return (
    <form
      className="mt-3 grid gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        pair()
      }}
    >
      <label className="ask" htmlFor="pair-code">
        The code the relay printed at its start
      </label>
      <input
        id="pair-code"
        className="field figures max-w-60 uppercase"
        autoComplete="off"
        value={code}
        onChange={(event) => setCode(event.target.value)}
      />
      {replace && (
        <p role="alert" className="note bg-sun-soft text-sun-ink">
          Another desk is paired with this relay. Pairing this one cuts that one off.
        </p>
      )}
      {problem && (
        <p role="alert" className="font-semibold text-clay">
          {problem}
        </p>
      )}
      <button type="submit" className="press press-go justify-self-start" disabled={code.trim() === ''}>
        {replace ? 'Pair this desk and cut the other off' : 'Pair this desk'}
      </button>
    </form>
  )
}
