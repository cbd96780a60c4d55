import nodemailer, { type Transporter } from 'nodemailer'
import { isLoopback } from '../ground/settings.ts'

/** How many connections mail goes over. */
const CONNECTIONS = 2

/** How long each stage of handing over may take, in ms: a host that hangs holds nothing else up for long. */
const PATIENCE = {
  dnsTimeout: 10_000,
  connectionTimeout: 10_000,
  greetingTimeout: 10_000,
  socketTimeout: 30_000,
}

/**
 * The way to the host that takes the mail. TLS is required, with a certificate that can be verified, unless the host is
 * this machine: nobody else may read what people have confided.
 * @param smtp its address, smtp:// (TLS begins with STARTTLS) or smtps://
 */
export function mailHost(smtp: string): Transporter {
  const url = new URL(smtp)
  const here = isLoopback(url.hostname)
  const secure = url.protocol === 'smtps:'
  const port = url.port ? { port: Number(url.port) } : secure ? { port: 465 } : { port: 587 }
  const user = decodeURIComponent(url.username)
  return nodemailer.createTransport({
    host: url.hostname.replace(/^\[|\]$/g, ''),
    ...port,
    secure,
    requireTLS: !secure && !here,
    ...(user ? { auth: { user, pass: decodeURIComponent(url.password) } } : {}),
    pool: true,
    maxConnections: CONNECTIONS,
    disableFileAccess: true,
    disableUrlAccess: true,
    ...PATIENCE,
    ...(here ? { tls: { rejectUnauthorized: false } } : {}),
  })
}
