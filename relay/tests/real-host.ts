import { type ChildProcess, spawn } from 'node:child_process'
import { chmodSync, chownSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { connect, createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { ImapFlow } from 'imapflow'
import { type ParsedMail, simpleParser } from 'mailparser'

/** Debian's user for mail: who the boxes belong to. */
const MAIL = { uid: 8, gid: 8 }
const PASSWORD = 'on-loopback-alone'

async function freePort(): Promise<number> {
  const server = createServer()
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const address = server.address()
  await new Promise((resolve) => server.close(resolve))
  if (typeof address !== 'object' || !address) throw new Error('No port is free.')
  return address.port
}

/** Waits until something answers on a port. */
async function answering(port: number): Promise<void> {
  for (let tries = 0; tries < 100; tries++) {
    const up = await new Promise<boolean>((resolve) => {
      const socket = connect(port, '127.0.0.1', () => {
        socket.destroy()
        resolve(true)
      })
      socket.on('error', () => resolve(false))
    })
    if (up) return
    await wait(100)
  }
  throw new Error(`Nothing answers on port ${port}.`)
}

/**
 * A mail server as practices have one: OpenSMTPD takes mail for anybody into one box, and Dovecot shows it by IMAP.
 * Needs both from Debian, and root.
 */
export class RealHost {
  readonly #folder = mkdtempSync(join(tmpdir(), 'acolhida-host-'))
  readonly #running: ChildProcess[] = []
  #imap = 0

  /** @returns where mail is taken */
  async start(): Promise<string> {
    const smtp = await freePort()
    this.#imap = await freePort()
    const box = join(this.#folder, 'mail')
    mkdirSync(box)
    chownSync(box, MAIL.uid, MAIL.gid)
    chmodSync(this.#folder, 0o755)
    const smtpd = join(this.#folder, 'smtpd.conf')
    writeFileSync(
      smtpd,
      [
        'table all { "@" = mail }',
        `listen on 127.0.0.1 port ${smtp} hostname mail.example.org`,
        `action "keep" maildir "${box}" user mail virtual <all>`,
        'match from any for any action "keep"',
        '',
      ].join('\n'),
    )
    const dovecot = join(this.#folder, 'dovecot.conf')
    writeFileSync(
      dovecot,
      [
        `base_dir = ${join(this.#folder, 'run')}`,
        `log_path = ${join(this.#folder, 'dovecot.log')}`,
        'protocols = imap',
        'listen = 127.0.0.1',
        'ssl = no',
        'disable_plaintext_auth = no',
        'first_valid_uid = 1',
        `mail_location = maildir:${box}`,
        'service imap-login {',
        '  inet_listener imap {',
        `    port = ${this.#imap}`,
        '  }',
        '  inet_listener imaps {',
        '    port = 0',
        '  }',
        '}',
        'passdb {',
        '  driver = static',
        `  args = password=${PASSWORD}`,
        '}',
        'userdb {',
        '  driver = static',
        `  args = uid=mail gid=mail home=${this.#folder}`,
        '}',
        '',
      ].join('\n'),
    )
    this.#running.push(
      spawn('smtpd', ['-d', '-f', smtpd], { stdio: 'ignore' }),
      spawn('dovecot', ['-F', '-c', dovecot], { stdio: 'ignore' }),
    )
    await answering(smtp)
    await answering(this.#imap)
    return `smtp://127.0.0.1:${smtp}`
  }

  /** Everything in the box, as it is shown by IMAP. */
  async shown(): Promise<ParsedMail[]> {
    const client = new ImapFlow({
      ...{ host: '127.0.0.1', port: this.#imap, secure: false, logger: false },
      auth: { user: 'practice', pass: PASSWORD },
    })
    await client.connect()
    await client.mailboxOpen('INBOX')
    const found: ParsedMail[] = []
    for await (const { source } of client.fetch('1:*', { source: true }))
      if (source) found.push(await simpleParser(source))
    await client.logout()
    return found
  }

  async stop(): Promise<void> {
    for (const child of this.#running) {
      const gone = new Promise((resolve) => child.once('exit', resolve))
      child.kill()
      await gone
    }
    rmSync(this.#folder, { recursive: true, force: true })
  }
}
