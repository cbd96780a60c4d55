import { CONTRACT, type Problem } from '@acolhida/core/contract'
import { inForce } from '@acolhida/core/time'
import { noteRelay } from './clock.ts'
import { isSaying, saying } from './said.ts'

/** What the relay answered instead of doing it; or that it could not be reached. */
export class RelayError extends Error {
  /** HTTP status; 0 when nothing answered. */
  readonly status: number
  readonly problem: Problem

  constructor(status: number, problem: Problem) {
    super(problem.message)
    this.name = 'RelayError'
    this.status = status
    this.problem = problem
  }

  get code(): string {
    return this.problem.code
  }

  /** Nothing answered: it may be tried again as it is. */
  get unreachable(): boolean {
    return this.status === 0 || this.status >= 502
  }
}

export interface Calling {
  method?: 'GET' | 'POST' | 'PUT'
  body?: unknown
  /** Sent as it is, in place of a body. */
  bytes?: Blob
  /** Says the same thing once, however often it is sent. */
  key?: string
  /** The desk's key. */
  bearer?: string
  signal?: AbortSignal
}

/**
 * Calls the relay and gives its answer.
 * @throws RelayError for a refusal, and when it can't be reached
 */
export async function call<T>(
  path: string,
  { method, body, bytes, key, bearer, signal }: Calling = {},
): Promise<T> {
  let response: Response
  try {
    response = await fetch(path, {
      method: method ?? (body === undefined && !bytes ? 'GET' : 'POST'),
      headers: {
        'x-acolhida-contract': String(CONTRACT),
        'accept-language': inForce(),
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(bytes ? { 'content-type': 'application/octet-stream' } : {}),
        ...(key ? { 'idempotency-key': key } : {}),
        ...(bearer ? { authorization: `Bearer ${bearer}` } : {}),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      ...(bytes ? { body: bytes } : {}),
      ...(signal ? { signal } : {}),
    })
  } catch (error) {
    if (signal?.aborted) throw error
    throw new RelayError(0, {
      code: 'unreachable',
      message: saying('unreachable'),
    })
  }
  noteRelay(response.headers)
  const answer: unknown = await response.json().catch(() => undefined)
  if (response.ok) return answer as T
  const problem = answer as Problem | undefined
  throw new RelayError(
    response.status,
    problem?.code ? inWords(problem) : { code: 'failed', message: saying('failed') },
  )
}

/** What is said the same of everything is said in the words of the page. */
const inWords = (problem: Problem): Problem =>
  isSaying(problem.code) ? { ...problem, message: saying(problem.code) } : problem

/** A key for one thing to be done once, or a name for something new: it begins with a letter, as our own names do. */
export const newKey = (): string => {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  bytes[0]! &= 0x7f
  return btoa(String.fromCharCode(...bytes))
    .replaceAll('+', '-')
    .replaceAll('/', '_')
    .replaceAll('=', '')
}
