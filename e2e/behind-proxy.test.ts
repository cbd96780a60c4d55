import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writeBackup } from '@acolhida/core/formats'
import { instant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { Mailbox } from '@acolhida/relay/standins/mailbox'
import type { Browser, Page } from 'playwright-core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { fillIn, pick, sendButton, toTheTimes } from './client.ts'
import { eventually, type House, launch } from './house.ts'

/** Only where nginx is: in the soak. */
const HERE = process.env.BEHIND_PROXY === '1'

const ROOT = join(import.meta.dirname, '..')
const PORT = 18_443
const DOOR = `https://door.localhost:${PORT}`
const DESK = `https://desk.localhost:${PORT}`

let folder: string
let mailbox: Mailbox
let relay: ChildProcess
let proxy: ChildProcess
let browser: Browser
let code: string
let said = ''

/** The example of `deploy/nginx.conf`, with this machine’s names, paths and ports, and nothing else changed. */
function proxyFrom(example: string, pages: { door: number; desk: number }): string {
  const servers = example
    .replaceAll('listen 443 ssl', `listen 127.0.0.1:${PORT} ssl`)
    .replaceAll('http2 on;', '')
    .replaceAll('door.example.org', 'door.localhost')
    .replaceAll('desk.example.org', 'desk.localhost')
    .replaceAll(/\/etc\/ssl\/\w+\.pem/g, join(folder, 'own.pem'))
    .replaceAll(/\/etc\/ssl\/\w+\.key/g, join(folder, 'own.key'))
    .replaceAll('/var/log/nginx/', `${folder}/`)
    .replaceAll(':4180', `:${pages.door}`)
    .replaceAll(':4181', `:${pages.desk}`)
  return `daemon off; pid ${folder}/nginx.pid; error_log ${folder}/main.log;
events {}
http { client_body_temp_path ${folder}/body; proxy_temp_path ${folder}/proxy; fastcgi_temp_path ${folder}/f;
uwsgi_temp_path ${folder}/u; scgi_temp_path ${folder}/s;
${servers} }`
}

beforeAll(async () => {
  if (!HERE) return
  folder = mkdtempSync(join(tmpdir(), 'acolhida-proxy-'))
  chmodSync(folder, 0o755)
  mkdirSync(join(folder, 'body'))
  execFileSync('openssl', [
    ...['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '2', '-subj', '/CN=door.localhost'],
    ...['-addext', 'subjectAltName=DNS:door.localhost,DNS:desk.localhost'],
    ...['-keyout', join(folder, 'own.key'), '-out', join(folder, 'own.pem')],
  ])
  mailbox = new Mailbox()
  const pages = { door: 18_180, desk: 18_181 }
  relay = spawn(process.execPath, ['--import', 'tsx', 'relay/main.ts', '--new'], {
    cwd: ROOT,
    env: {
      ...process.env,
      ACOLHIDA_FILE: join(folder, 'relay.sqlite'),
      ACOLHIDA_SMTP: await mailbox.start(),
      ACOLHIDA_DOOR_URL: DOOR,
      ACOLHIDA_DESK_URL: DESK,
      ACOLHIDA_PROXIES: '127.0.0.1',
      ACOLHIDA_DOOR_PORT: String(pages.door),
      ACOLHIDA_DESK_PORT: String(pages.desk),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  relay.stdout?.on('data', (part: Buffer) => {
    said += part.toString()
  })
  code = await eventually('a code', () => /#pair=([A-Z0-9-]+)/.exec(said)?.[1], 60_000)
  const config = join(folder, 'nginx.conf')
  writeFileSync(config, proxyFrom(readFileSync(join(ROOT, 'deploy', 'nginx.conf'), 'utf8'), pages))
  proxy = spawn('/usr/sbin/nginx', ['-c', config], { stdio: 'inherit' })
  browser = await launch()
})

afterAll(async () => {
  if (!HERE) return
  await browser.close()
  proxy.kill()
  relay.kill()
  await mailbox.stop()
  rmSync(folder, { recursive: true, force: true })
})

const page = async (): Promise<Page> => {
  const context = await browser.newContext({
    ignoreHTTPSErrors: true,
    timezoneId: 'Europe/Lisbon',
    locale: 'en-GB',
  })
  await context.addInitScript('globalThis.__name ??= (it) => it')
  return context.newPage()
}

describe.skipIf(!HERE)('two names behind one proxy, with TLS', () => {
  it('carry a practice from the pairing to a request, by the mail’s own links', async () => {
    const desk = await page()
    await desk.goto(DESK)
    const file = join(folder, 'backup.json')
    writeFileSync(file, writeBackup(demoBackup(instant(Date.now()))))
    await desk.getByLabel('Choose a file').setInputFiles(file)
    await desk.getByRole('heading', { name: 'Waiting for your answer' }).waitFor()
    await desk.getByRole('link', { name: 'My practice' }).click()
    await desk.goto(`${DESK}/desk`)
    await desk.getByLabel(/The code the relay printed/).fill(code)
    await desk.getByRole('button', { name: 'Pair this desk' }).click()
    await desk.getByText('Your door is open').waitFor()

    const client = await page()
    const house = { door: DOOR, slug: 'iria-montalvar' } as House
    await toTheTimes(client, house)
    await pick(client, 1)
    await fillIn(client, 'Ada Winterthur', 'ada@example.org')
    await sendButton(client).click()
    await client.getByText('A mail is on its way to you').waitFor()
    const mail = await eventually(
      'the receipt',
      () => mailbox.received.find(({ to }) => to === 'ada@example.org'),
      30_000,
    )
    const link = /https:\/\/\S+/.exec(mail.text)![0]
    expect(link.startsWith(`${DOOR}/iria-montalvar/my/`)).toBe(true)
    const own = await page()
    await own.goto(link)
    await own
      .getByText(/answers by/)
      .first()
      .waitFor()

    // The stream tells the desk by itself.
    await desk.goto(`${DESK}/`)
    await desk.getByText('Ada Winterthur').first().waitFor()

    // No log of the proxy's holds an address of the door's.
    const log = readFileSync(join(folder, 'acolhida.log'), 'utf8')
    expect(log).toContain('POST')
    expect(log).not.toMatch(/\/my\/|iria-montalvar/)
    expect((await fetch('http://127.0.0.1:18180/health')).status).toBe(200)
  })
})
