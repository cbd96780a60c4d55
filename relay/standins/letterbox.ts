import { existsSync, readdirSync } from 'node:fs'
import { createServer, type Server } from 'node:http'
import { join } from 'node:path'
import { forward } from '@acolhida/core/contract/schemas'
import { instant, moment, zone } from '@acolhida/core/time'
import express from 'express'
import type { MovableClock } from '../ground/clock.ts'
import { bodyOf, failures, guarded, jsonOf } from '../http/security.ts'
import { listen, urlOf } from '../relay.ts'
import type { StandinCalendar } from './calendar.ts'
import type { Mailbox, Received } from './mailbox.ts'

const safe = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)

/** Text with its web addresses made into links; everything else stays text. */
const linked = (text: string): string =>
  safe(text).replace(
    /https?:\/\/[^\s<]+/g,
    (url) => `<a href="${url}" target="_blank" rel="noopener">${url}</a>`,
  )

/** A calendar entry in words for the letterbox: its lines, unfolded. */
const calendarLines = (calendar: string): string =>
  calendar
    .replace(/\r?\n[ \t]/g, '')
    .split(/\r?\n/)
    .filter((line) => /^(METHOD|UID|SEQUENCE|DTSTART|DTEND|SUMMARY|LOCATION|STATUS)/.test(line))
    .join('\n')

const STYLE = `
@font-face{font-family:Fraunces;src:url(/fonts/fraunces.woff2) format("woff2");font-weight:100 900;font-display:swap}
@font-face{font-family:Atkinson;src:url(/fonts/atkinson.woff2) format("woff2");font-weight:200 800;font-display:swap}
:root{color-scheme:light dark;--paper:#faf6ee;--card:#fffdf8;--line:#e3dac8;--ink:#22302b;--soft:#5d6a63;--rail:#2c5f4f;--way:#2d5a8a;--shade:#efe8da;--focus:#1f4468}
@media(prefers-color-scheme:dark){:root{--paper:#161f1b;--card:#1e2924;--line:#3a4741;--ink:#efe9db;--soft:#abb8af;--rail:#10231c;--way:#9cc3ea;--shade:#2a3630;--focus:#cbe0f6}}
*{box-sizing:border-box}
body{margin:0;background:var(--paper);color:var(--ink);font:15px/1.45 Atkinson,system-ui,sans-serif}
h1,h2,.brand{font-family:Fraunces,Georgia,serif;font-weight:560;letter-spacing:-.01em;line-height:1.15;margin:0}
h1{font-size:30px}h2{font-size:19px}
.rail{background:var(--rail);color:#eef5f0;padding:20px 14px;--focus:#ffe2a3}
.brand{display:flex;gap:10px;align-items:center;font-size:22px;font-weight:600;padding:0 8px 16px}
.rail a{display:flex;min-height:38px;align-items:center;border-radius:8px;padding:0 10px;color:inherit;text-decoration:none}
.rail a[aria-current]{background:var(--card);color:var(--ink);font-weight:650}
.rail form{display:grid;gap:8px;margin-top:18px;padding:0 10px;font-size:13px}
main{padding:24px 30px 60px;min-width:0}
main>*{max-width:820px}
@media(min-width:760px){body{display:grid;grid-template-columns:196px 1fr;min-height:100dvh}}
.lead{margin:4px 0 20px;color:var(--soft);font-size:14px}
article{background:var(--card);border:1px solid var(--line);border-radius:14px;padding:16px 20px;margin-bottom:14px}
.s{color:var(--soft);font-size:14px;margin-top:2px}
pre{white-space:pre-wrap;overflow-wrap:anywhere;font:inherit;margin:12px 0 0}
details{margin-top:10px}summary{cursor:pointer;font-weight:650}
details pre,textarea{font:13px/1.5 ui-monospace,monospace;background:var(--shade);border-radius:9px;padding:10px}
a{color:var(--way)}
button{font:650 14px/1.2 Atkinson,system-ui,sans-serif;border:1.5px solid currentColor;border-radius:9px;background:transparent;color:inherit;padding:7px 12px;min-height:36px;cursor:pointer}
:focus-visible{outline:3px solid var(--focus);outline-offset:2px}
main form{display:grid;gap:10px}
textarea{width:100%;border:1px solid var(--soft);color:inherit}
main button{justify-self:start}
`

/** The tile of the house, drawn small. */
const EMBLEM = `<svg viewBox="0 0 40 40" width="28" height="28" aria-hidden="true"><rect x="1" y="1" width="38" height="38" rx="7" fill="#fffdf8" stroke="#e3dac8"/>${[0, 90, 180, 270].map((turn) => `<path d="M20 18C11 18 5 13 4 4C13 5 18 11 18 18Z" transform="rotate(${turn} 20 20)" fill="#2c5f4f"/>`).join('')}<circle cx="20" cy="20" r="4.6" fill="#2c5f4f" stroke="#d9982a" stroke-width="1.8"/></svg>`

function article(mail: Received): string {
  return `<article id="mail-${mail.id}"><h2>${safe(mail.subject)}</h2>
<div class="s">To ${safe(mail.to)} · from ${safe(mail.from)} · ${moment(instant(mail.at), zone('UTC'))} UTC</div>
<pre>${linked(mail.text)}</pre>${
    mail.calendar
      ? `<details><summary>Calendar entry</summary><pre>${safe(calendarLines(mail.calendar))}</pre></details>`
      : ''
  }</article>`
}

/** A page of the letterbox: what is in it, beside the ways and the clock of the demo. */
function page(title: string, path: '/' | '/calendar', clock: MovableClock, main: string): string {
  const steps = [
    ['10 minutes', 600_000],
    ['1 hour', 3_600_000],
    ['1 day', 86_400_000],
  ]
    .map(([name, ms]) => `<button name="forward" value="${ms}">Forward ${name}</button>`)
    .join('')
  const way = (to: string, name: string): string =>
    `<a href="${to}"${to === path ? ' aria-current="page"' : ''}>${name}</a>`
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${title} · Acolhida</title><link rel="stylesheet" href="/style.css"></head><body>
<nav class="rail" aria-label="Letterbox"><div class="brand">${EMBLEM} Acolhida</div>${way('/', 'Letterbox')}${way('/calendar', 'Another calendar')}
<form method="post" action="/clock"><span>The demo’s clock:<br>${moment(clock.now(), zone('UTC'))} UTC</span>${steps}</form></nav>
<main><h1>${title}</h1>${main}</main></body></html>`
}

function mailsPage(mails: readonly Received[], clock: MovableClock): string {
  const list = [...mails].reverse().map(article).join('\n')
  return page(
    'Letterbox',
    '/',
    clock,
    `<p class="lead">What the practice sends, newest first. It lies here only in the demo.</p>${list || '<p>Nothing has been sent yet.</p>'}`,
  )
}

const calendarPage = (text: string, clock: MovableClock): string =>
  page(
    'Another calendar',
    '/calendar',
    clock,
    `<p class="lead">What stands here closes times at the door. The relay reads it every few minutes, and again before it takes a request.</p>
<form method="post" action="/calendar"><label for="text">iCalendar</label><textarea id="text" name="text" rows="22">${safe(text)}</textarea><button>Keep it</button></form>`,
  )

/** The fonts of the house, where they have been built. */
const FONTS = { fraunces: /^fraunces-latin-wght/, atkinson: /^atkinson.*-latin-wght/ } as const

/**
 * The stand-in that shows what was sent, and moves the demo's clock. It never runs in earnest.
 * @param assets the folder of the built desk's files, for its fonts
 */
export async function startLetterbox(
  mailbox: Mailbox,
  clock: MovableClock,
  calendar: StandinCalendar,
  onMove: () => void,
  { port = 0, assets = '' }: { port?: number; assets?: string } = {},
): Promise<{ url: string; server: Server }> {
  const app = guarded(clock)
  app.get('/style.css', (_req, res) => {
    res.type('css').send(STYLE)
  })
  const built = existsSync(assets) ? readdirSync(assets) : []
  for (const [name, is] of Object.entries(FONTS)) {
    const file = built.find((other) => is.test(other) && other.endsWith('.woff2'))
    if (file) app.get(`/fonts/${name}.woff2`, (_req, res) => res.sendFile(join(assets, file)))
  }
  app.get('/', (_req, res) => {
    res.type('html').send(mailsPage(mailbox.received, clock))
  })
  app.get('/api/mails', (_req, res) => {
    res.json(mailbox.received)
  })
  const move = (value: unknown): void => {
    clock.forward(bodyOf(forward, value).forward)
    onMove()
  }
  app.get('/calendar.ics', (_req, res) => {
    res.type('text/calendar').send(calendar.text)
  })
  app.get('/calendar', (_req, res) => {
    res.type('html').send(calendarPage(calendar.text, clock))
  })
  app.post('/calendar', express.urlencoded({ extended: false, limit: 200_000 }), (req, res) => {
    calendar.text = String((req.body as { text?: unknown }).text ?? '')
    res.redirect(303, '/calendar')
  })
  app.post('/api/clock', jsonOf({ largest: 1_000 }), (req, res) => {
    move(req.body)
    res.json({ now: clock.now() })
  })
  app.post('/clock', express.urlencoded({ extended: false, limit: 1_000 }), (req, res) => {
    move({ forward: Number((req.body as { forward?: unknown }).forward) })
    res.redirect(303, '/')
  })
  app.use(failures)
  const server = await listen(createServer(app), port, '127.0.0.1')
  return { url: urlOf(server), server }
}
