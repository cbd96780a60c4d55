import { lookup as resolveName } from 'node:dns'
import http from 'node:http'
import https from 'node:https'
import { isIP, type LookupFunction } from 'node:net'
import ipaddr from 'ipaddr.js'

export interface ReadLimits {
  /** Whether addresses of private networks and of this machine may be read. */
  allowPrivate: boolean
  bytes: number
  /** For the whole of it, redirects included. */
  ms: number
  redirects: number
}

export const CALENDAR_LIMITS: ReadLimits = {
  allowPrivate: false,
  bytes: 8 * 1024 * 1024,
  ms: 10_000,
  redirects: 3,
}

/** Why an address was not read, in words for the practitioner. */
export class Unreadable extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'Unreadable'
  }
}

/** Whether an IP address lies in the open internet. */
export function isPublic(address: string): boolean {
  const parsed = ipaddr.process(address)
  return parsed.range() === 'unicast'
}

/** Resolves names, and refuses what leads into a private network: after the look-up, so that no name can hide it. */
const guardedLookup =
  (allowPrivate: boolean): LookupFunction =>
  (host, options, done) => {
    resolveName(host, { ...options, all: true }, (error, addresses) => {
      if (error) {
        done(new Unreadable('There is no such address.'), '', 4)
        return
      }
      const bad = addresses.find((address) => !isPublic(address.address))
      const [first] = addresses
      if (!first || (bad && !allowPrivate)) done(new Unreadable('It leads into a private network.'), '', 4)
      else if (options.all) done(null, addresses)
      else done(null, first.address, first.family)
    })
  }

function checked(address: string | URL, base?: URL): URL {
  let url: URL
  try {
    url = new URL(String(address).replace(/^webcal:/i, 'https:'), base)
  } catch {
    throw new Unreadable('This is not a web address.')
  }
  if (url.protocol !== 'http:' && url.protocol !== 'https:')
    throw new Unreadable('Only addresses with http:// or https:// are read.')
  return url
}

/**
 * Reads a text from a web address, within limits of size, time and place.
 * @throws Unreadable with a sentence
 */
export async function readAddress(address: string, limits: ReadLimits): Promise<string> {
  const signal = AbortSignal.timeout(limits.ms)
  let url = checked(address)
  for (let hops = 0; hops <= limits.redirects; hops++) {
    const answer = await once(url, limits, signal)
    if ('text' in answer) return answer.text
    url = checked(answer.location, url)
  }
  throw new Unreadable('It leads on and on to other addresses.')
}

function once(
  url: URL,
  limits: ReadLimits,
  signal: AbortSignal,
): Promise<{ text: string } | { location: string }> {
  const literal = url.hostname.replace(/^\[|\]$/g, '')
  if (isIP(literal) && !limits.allowPrivate && !isPublic(literal)) {
    throw new Unreadable('It leads into a private network.')
  }
  return new Promise((resolve, reject) => {
    const { get } = url.protocol === 'https:' ? https : http
    const fail = (message: string): void => reject(new Unreadable(message))
    const request = get(
      url,
      { lookup: guardedLookup(limits.allowPrivate), signal, headers: { accept: 'text/calendar' } },
      (response) => {
        const { statusCode = 0, headers } = response
        if ([301, 302, 303, 307, 308].includes(statusCode) && headers.location) {
          response.resume()
          resolve({ location: headers.location })
          return
        }
        if (statusCode !== 200) {
          response.resume()
          fail(`It answered with ${statusCode}.`)
          return
        }
        const parts: Buffer[] = []
        let size = 0
        response.on('data', (part: Buffer) => {
          size += part.length
          if (size > limits.bytes) {
            fail(`It is larger than ${Math.round(limits.bytes / 1024 / 1024)} MB.`)
            request.destroy()
          } else parts.push(part)
        })
        response.on('end', () => resolve({ text: Buffer.concat(parts).toString('utf8') }))
        response.on('error', () => fail('It broke off.'))
      },
    )
    request.on('error', (error) => {
      if (error instanceof Unreadable) reject(error)
      else fail(signal.aborted ? 'It took too long to answer.' : 'It does not answer.')
    })
  })
}
