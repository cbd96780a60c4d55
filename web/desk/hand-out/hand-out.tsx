import { offeredOn } from '@acolhida/core/practice'
import { dateAt } from '@acolhida/core/time'
import { escapeHtml } from '@acolhida/core/words/html'
import { Copy, Download } from 'lucide-react'
import { useEffect, useId, useState } from 'react'
import type { QrCode } from '../../drawings/qr.ts'
import { useAt } from '../../relay-client/clock.ts'
import { useDesk } from '../data/live.ts'
import { ActButton } from '../parts/act.tsx'
import { useDoorUrl } from '../parts/door-link.tsx'
import { saveFile } from '../parts/file.tsx'
import { PageHead } from '../parts/page-head.tsx'
import { homeZone } from '../parts/words.ts'

/** The address of the door, to give to people: to copy, to print, for the foot of a mail. */
export function HandOut() {
  const { practice } = useDesk()
  const { profile } = practice
  const door = useDoorUrl()
  const [to, setTo] = useState('')
  const today = useAt((now) => dateAt(homeZone(practice), now))
  const services = practice.services.filter(
    (service) => service.bookableBy === 'everyone' && offeredOn(service, today),
  )
  const service = services.find(({ id }) => id === to)
  const address = door && `${door}${profile.slug}${service ? `/${service.id}` : ''}`
  const line = service ? `${service.name} with me` : 'Ask me for a time'
  return (
    <>
      <PageHead
        title="Hand out the link"
        line="Whoever opens it stands at your door. Nothing else is needed."
      />
      {address === undefined ? (
        <p className="sheet mt-5 max-w-[640px] p-5">
          Your door’s address will stand here as soon as this desk reaches its relay.
        </p>
      ) : (
        <div className="mt-5 grid max-w-[980px] gap-5 lg:grid-cols-[1fr_332px]">
          <section className="sheet grid h-fit gap-4 p-5" aria-label="The link">
            <label className="ask">
              Leads to
              <select className="field mt-1" value={to} onChange={(event) => setTo(event.target.value)}>
                <option value="">The whole door</option>
                {services.map((service) => (
                  <option key={service.id} value={service.id}>
                    {service.name}
                  </option>
                ))}
              </select>
            </label>
            <ToCopy label="The address" text={address} />
            <ToCopy label="A line for the foot of your mails" text={`${line}: ${address}`} />
            <ToCopy
              label="A button for your own pages"
              help="As HTML: put it where the button shall stand."
              text={`<a href="${escapeHtml(address)}">${escapeHtml(line)}</a>`}
            />
          </section>
          <Code address={address} name={profile.name} line={service?.name ?? profile.headline} />
        </div>
      )}
    </>
  )
}

function ToCopy({ label, help, text }: { label: string; help?: string; text: string }) {
  const id = useId()
  const [copied, setCopied] = useState('')
  return (
    <div>
      <label className="ask" htmlFor={id}>
        {label}
      </label>
      {help && <p className="text-[13px] text-soft">{help}</p>}
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <input
          id={id}
          className="field min-w-0 flex-1"
          readOnly
          value={text}
          onFocus={(event) => event.target.select()}
        />
        <ActButton
          className="press"
          aria-label={`Copy: ${label}`}
          onAct={async () => {
            await navigator.clipboard.writeText(text)
            setCopied(text)
          }}
        >
          <Copy size={16} aria-hidden="true" /> Copy
        </ActButton>
      </div>
      <p role="status" className="text-[13px] text-soft">
        {copied === text ? 'Copied.' : ''}
      </p>
    </div>
  )
}

/** The address as a QR code, to save and to print. */
function Code({ address, name, line }: { address: string; name: string; line: string }) {
  const [code, setCode] = useState<QrCode>()
  useEffect(() => {
    let here = true
    void import('../../drawings/qr.ts').then(({ qrCode }) => here && setCode(qrCode(address)))
    return () => {
      here = false
    }
  }, [address])
  if (!code) return null
  const svg = async (): Promise<void> => {
    const { qrSvg } = await import('../../drawings/qr.ts')
    saveFile('door.svg', 'image/svg+xml', qrSvg(code))
  }
  const pdf = async (): Promise<void> => {
    const [{ leaflet }, { wordsPicture }] = await Promise.all([
      import('./leaflet.ts'),
      import('./words-picture.ts'),
    ])
    const sheet = await leaflet(await wordsPicture(name, line), code, address)
    saveFile('door.pdf', 'application/pdf', new Uint8Array(sheet))
  }
  return (
    <section className="sheet grid h-fit justify-items-center gap-4 p-5" aria-label="As a QR code">
      <svg
        role="img"
        aria-label={`QR code of ${address}`}
        viewBox={`0 0 ${code.size} ${code.size}`}
        className="w-full max-w-[260px] rounded-md border border-line bg-white"
        shapeRendering="crispEdges"
      >
        <path d={code.path} fill="#000" />
      </svg>
      <div className="flex flex-wrap justify-center gap-2.5">
        <ActButton className="press" onAct={svg}>
          <Download size={16} aria-hidden="true" /> As SVG
        </ActButton>
        <ActButton className="press" onAct={pdf}>
          <Download size={16} aria-hidden="true" /> PDF to print
        </ActButton>
      </div>
    </section>
  )
}
