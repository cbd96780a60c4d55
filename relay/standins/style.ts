import { existsSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import type { Express } from 'express'

/** Text as it stands in a page. */
export const safe = (text: string): string => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`)

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
main input{font:inherit;min-height:44px;border:1px solid var(--soft);border-radius:9px;background:var(--card);color:inherit;padding:8px 10px}
.wrong{color:#8a2f1f;font-weight:650}
@media(prefers-color-scheme:dark){.wrong{color:#f0b7a8}}
table{border-collapse:collapse}td{padding:3px 14px 3px 0;vertical-align:top}
textarea{width:100%;border:1px solid var(--soft);color:inherit}
main button{justify-self:start}main form+form{margin-top:10px}main h2{margin:26px 0 8px}.go{background:var(--rail);border-color:var(--rail);color:#fff}
`

/** The tile of the house, drawn small. */
export const EMBLEM = `<svg viewBox="0 0 40 40" width="28" height="28" aria-hidden="true"><rect x="1" y="1" width="38" height="38" rx="7" fill="#fffdf8" stroke="#e3dac8"/>${[0, 90, 180, 270].map((turn) => `<path d="M20 18C11 18 5 13 4 4C13 5 18 11 18 18Z" transform="rotate(${turn} 20 20)" fill="#2c5f4f"/>`).join('')}<circle cx="20" cy="20" r="4.6" fill="#2c5f4f" stroke="#d9982a" stroke-width="1.8"/></svg>`

/** The fonts of the house, where they have been built. */
const FONTS = { fraunces: /^fraunces-latin-wght/, atkinson: /^atkinson.*-latin-wght/ } as const

/** Serves how the stand-ins' pages look. @param assets the folder of the built desk's files, for its fonts */
export function serveStyle(app: Express, assets: string): void {
  app.get('/style.css', (_req, res) => {
    res.type('css').send(STYLE)
  })
  const built = existsSync(assets) ? readdirSync(assets) : []
  for (const [name, is] of Object.entries(FONTS)) {
    const file = built.find((other) => is.test(other) && other.endsWith('.woff2'))
    if (file) app.get(`/fonts/${name}.woff2`, (_req, res) => res.sendFile(join(assets, file)))
  }
}
