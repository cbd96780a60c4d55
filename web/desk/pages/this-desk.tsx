import { type ReactNode, useEffect, useState } from 'react'
import { Link } from 'react-router'
import { qrCode } from '../../drawings/qr.ts'
import { useDesk } from '../data/live.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { saveFile } from '../parts/file.tsx'
import { RESTORED, Restoring } from '../restore/restoring.tsx'
import { writtenBackup } from '../restore/save-backup.ts'
import { endAway, lookRound, newCode, pairPhone, pairWith, type ToAgree } from '../sync/acts.ts'
import { useStanding } from '../sync/standing.ts'
import { useRelayStatus } from '../sync/use-status.ts'

/** What is to be said after the page has been loaded anew. */
const saidFirst = (): string | undefined =>
  sessionStorage.getItem(RESTORED)
    ? 'Everything is as it was in the file. Pair this desk again to open the door.'
    : undefined

/** The desk itself: how it stands to the relay, and the files it is kept in. */
export function ThisDesk() {
  const { practice, connection, intentions } = useDesk()
  const standing = useStanding()
  const [message, setMessage] = useState(saidFirst)
  // Said once; only when it is shown is it said.
  useEffect(() => sessionStorage.removeItem(RESTORED), [])
  const status = useRelayStatus()
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
          {standing === 'connected' && <AnotherCode />}
        </Card>
        {standing === 'connected' && <AwayFromHere />}
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
        {status?.demo && (
          <Card title="The demo">
            {status.demo === practice.id && (
              <p className="mb-3">
                <Link className="press press-go" to="/first/practice">
                  Begin my own practice
                </Link>
              </p>
            )}
            <p>
              The practice of Iria Montalvar can be brought here afresh. It takes the place of everything in
              this desk and in the relay.
            </p>
            <ActButton
              className="press mt-3"
              onAct={() => lookRound('all')}
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

/** The phone, and the links in mails: what one can decide with away from here. */
function AwayFromHere() {
  const [url, setUrl] = useState<string>()
  const [said, setSaid] = useState('')
  const code = url === undefined ? undefined : qrCode(url)
  return (
    <Card title="Away from this desk">
      <p>
        Each mail about a request has a link by which you can answer it. A phone can be paired, too: it shows
        your day, and what awaits your word.
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        <ActButton onAct={async () => setUrl(await pairPhone())}>
          {url ? 'Pair another phone instead' : 'Pair a phone'}
        </ActButton>
        <ActButton
          className="press press-no"
          onAct={async () => {
            await endAway('phone')
            setUrl(undefined)
            setSaid('No phone is paired any more.')
          }}
        >
          End the phone
        </ActButton>
        <ActButton
          className="press press-no"
          onAct={async () => {
            await endAway('words')
            setSaid('The links in mails so far lead nowhere any more.')
          }}
        >
          End the links in mails
        </ActButton>
      </div>
      {url !== undefined && code && (
        <div className="mt-3">
          <p className="text-[14px] text-soft">
            Open this with the phone, once. Whoever has it can see your day and decide: the phone paired
            before has ended.
          </p>
          <svg
            role="img"
            aria-label="The address as a QR code"
            viewBox={`0 0 ${code.size} ${code.size}`}
            className="mt-2 w-44 bg-white"
            shapeRendering="crispEdges"
          >
            <path d={code.path} fill="#000" />
          </svg>
          <a className="way mt-1 block wrap-anywhere" href={url} target="_blank" rel="noreferrer">
            {url}
          </a>
        </div>
      )}
      <p role="status" className="mt-2 text-[14px] font-semibold empty:hidden">
        {said}
      </p>
    </Card>
  )
}

/** A code for another browser, made when it is asked for; whoever uses it takes this desk's place. */
function AnotherCode() {
  const [code, setCode] = useState<string>()
  return (
    <div className="mt-3 grid gap-2">
      <p className="text-[14px] text-soft">
        To work in another browser, restore a backup there and pair it with a code. This desk is cut off then.
      </p>
      <ActButton className="press justify-self-start" onAct={async () => setCode(await newCode())}>
        {code ? 'Make another code' : 'Make a code for another browser'}
      </ActButton>
      {code && (
        <p role="status">
          The code is <b className="figures select-all">{code}</b>. It can be used once.
        </p>
      )}
    </div>
  )
}

function Pairing({ onDone }: { onDone: (text: string) => void }) {
  const [code, setCode] = useState('')
  const [asked, setAsked] = useState<ToAgree>()
  const [agreed, setAgreed] = useState<{ replace?: boolean; empty?: boolean }>({})
  const act = useAct()
  const pair = async (): Promise<void> => {
    const next = asked ? { ...agreed, [asked.agree]: true } : agreed
    setAgreed(next)
    const still = await pairWith(code, next)
    setAsked(still)
    if (!still) onDone('This desk is paired.')
  }
  return (
    <form
      className="mt-3 grid gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        act.run(pair)
      }}
    >
      <label className="ask" htmlFor="pair-code">
        The code the relay printed at its start, or one made at a paired desk
      </label>
      <input
        id="pair-code"
        className="field figures max-w-60 uppercase"
        autoComplete="off"
        value={code}
        onChange={(event) => setCode(event.target.value)}
      />
      {asked && (
        <p role="alert" className="note bg-sun-soft text-sun-ink">
          {asked.said}
        </p>
      )}
      <ProblemNote of={act} className="" />
      <button
        type="submit"
        className="press press-go justify-self-start"
        disabled={code.trim() === '' || act.busy}
      >
        {asked === undefined && 'Pair this desk'}
        {asked?.agree === 'replace' && 'Pair this desk and cut the other off'}
        {asked?.agree === 'empty' && 'Empty the relay and pair this desk'}
      </button>
    </form>
  )
}
