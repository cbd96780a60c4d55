import type { away, desk } from './desk-endpoints.ts'
import type { door } from './door-endpoints.ts'
import type { Endpoint } from './endpoint.ts'

/** What takes and gives bytes, or streams: mounted by hand, written down here. */
export const others = [
  [
    'POST /api/door/:slug/files?visit&service&question&name',
    '201 `Attached`: what stands for the file in the answers; the bytes as `application/octet-stream`, 5 MB at most; refused with `file`, and as `read` is',
  ],
  [
    'POST /api/yours/:secret/files?course&station&name&question',
    '201 `Attached`: a file that is brought, or answers a question of what there is to do; as files of the door; refused with `file`, `unknown-course`, `course-over`',
  ],
  [
    'GET /api/yours/:secret/documents/:course/:station',
    'the PDF of a letter, to be saved; or `unknown-link`, `asks-decides`, `unknown-file`',
  ],
  [
    'POST /api/till',
    'what the till tells, signed (RFC 9421, HMAC with SHA-256 over method, path and the digest of the body, within five minutes); 10 KB at most; refused with `till` where it is not signed, or not about what was asked for, or `unknown-payment`',
  ],
  ['GET /api/door/:slug/changes', 'server-sent events `practice`, `openings`, at most one a second'],
  ['GET /api/record/stream (desk)', 'server-sent events: something has been appended'],
  ['GET /api/files/:id (desk)', 'the bytes of a file given as an answer, or `unknown-file`'],
  ['GET /api/demo', 'the demo practice as the relay has it; `unknown` but where stand-ins run'],
  [
    'GET /feed/:secret.ics, /feed/:secret.ifb, /feed/:secret/hours.ics',
    'the practitioner’s bookings, only when they are busy (VFREEBUSY), or when they work (VAVAILABILITY); or `unknown-feed`',
  ],
] as const

type Door = typeof door
type Desk = typeof desk
type Away = typeof away
export type BodyOf<E> = E extends Endpoint<infer B, unknown> ? B : never
type All = Door & Away & Desk
/** The bodies of every endpoint that takes one, by its name. */
export type Bodies = {
  [N in keyof All as BodyOf<All[N]> extends undefined ? never : N]: BodyOf<All[N]>
}
