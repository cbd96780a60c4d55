/** An iCalendar file that can't be read at all. */
export class BadCalendar extends Error {
  constructor(what: string, reason: string) {
    super(`${what}: ${reason}`)
    this.name = 'BadCalendar'
  }
}

/** A component of a calendar (RFC 5545 §3.6): its own content lines, unfolded, and the components inside it. */
export interface Component {
  /** In capitals: "VEVENT". */
  name: string
  lines: string[]
  parts: Component[]
}

/** A property of a component, as it is written. */
export interface Property {
  /** By their names in capitals; without quotes. */
  parameters: Record<string, string>
  value: string
}

/** A line longer than this is nothing that is read here: a picture, or a mistake. */
const LONGEST = 100_000

/** Where the value of a line begins: after the first colon outside quotes; -1 where it is no line. */
function colonIn(line: string): number {
  const first = line.indexOf(':')
  const quote = line.indexOf('"')
  if (first < 0 || quote < 0 || quote > first) return first
  let quoted = false
  for (let i = quote; i < line.length; i++) {
    if (line[i] === '"') quoted = !quoted
    else if (line[i] === ':' && !quoted) return i
  }
  return -1
}

const isLine = (line: string): boolean => /^[A-Za-z0-9-]+[:;]/.test(line) && colonIn(line) > 0

/**
 * Reads a text as a stream of iCalendar objects (RFC 5545 §3.4). A line that is none costs only itself, and so does a
 * component that does not end.
 * @param skipped is told what was left out
 * @throws BadCalendar when it holds no calendar, or one that is cut off
 */
export function calendarsIn(source: string, what: string, skipped: string[]): Component[] {
  const lines = source
    .replace(/^\uFEFF/, '')
    .replace(/\r?\n[ \t]/g, '')
    .split(/\r?\n/)
  const calendars: Component[] = []
  const open: Component[] = []
  for (const line of lines) {
    if (line === '') continue
    if (line.length > LONGEST) continue
    const word = line.charCodeAt(0) | 32
    // "BEGIN:" and "END:", in whatever letters.
    if (word === 98 && /^begin:/i.test(line)) {
      begin(line.slice(6).trim().toUpperCase(), open, calendars, skipped)
      continue
    }
    if (word === 101 && /^end:/i.test(line)) {
      end(line.slice(4).trim().toUpperCase(), open, skipped)
      continue
    }
    if (!isLine(line)) skipped.push(`the line “${line.slice(0, 60)}”`)
    else open.at(-1)?.lines.push(line)
  }
  if (calendars.length === 0) throw new BadCalendar(what, 'holds no VCALENDAR')
  if (open.length > 0) throw new BadCalendar(what, 'is not iCalendar as a whole: its end is missing')
  return calendars
}

/** Components that stand in a calendar itself, and in no other. */
const OUTER = new Set(['VEVENT', 'VTODO', 'VJOURNAL', 'VFREEBUSY', 'VTIMEZONE', 'VAVAILABILITY'])

function begin(name: string, open: Component[], calendars: Component[], skipped: string[]): void {
  const part: Component = { name, lines: [], parts: [] }
  // What should have ended before is left out.
  const keep = name === 'VCALENDAR' ? 0 : OUTER.has(name) ? 1 : open.length
  while (open.length > keep) drop(open, skipped)
  if (name === 'VCALENDAR') calendars.push(part)
  else open.at(-1)?.parts.push(part)
  if (name === 'VCALENDAR' || open.length > 0) open.push(part)
}

function end(name: string, open: Component[], skipped: string[]): void {
  const at = open.map((part) => part.name).lastIndexOf(name)
  if (at < 0) return
  while (open.length > at + 1) drop(open, skipped)
  open.pop()
}

function drop(open: Component[], skipped: string[]): void {
  const part = open.pop()!
  const within = open.at(-1)
  if (within) within.parts = within.parts.filter((other) => other !== part)
  skipped.push(`${part.name} “${titleOf(part)}”: its end is missing`)
}

/** The properties of a name in a component, in order. */
export function propertiesOf({ lines }: Component, name: string): Property[] {
  const found: Property[] = []
  for (const line of lines) if (isNamed(line, name)) found.push(read(line, name.length))
  return found
}

/** The first property of a name in a component. */
export function propertyOf({ lines }: Component, name: string): Property | undefined {
  const line = lines.find((line) => isNamed(line, name))
  return line === undefined ? undefined : read(line, name.length)
}

function isNamed(line: string, name: string): boolean {
  const after = line.charCodeAt(name.length)
  // ":" and ";"
  if (after !== 58 && after !== 59) return false
  return line.startsWith(name) || line.slice(0, name.length).toUpperCase() === name
}

function read(line: string, from: number): Property {
  const colon = colonIn(line)
  const parameters: Property['parameters'] = {}
  if (colon > from) {
    for (const [, name, quoted, plain] of line
      .slice(from, colon)
      .matchAll(/;([A-Za-z0-9-]+)=(?:"([^"]*)"|([^";]*))/g))
      parameters[name!.toUpperCase()] = quoted ?? plain ?? ''
  }
  return { parameters, value: line.slice(colon + 1) }
}

/** The value of the first property of a name; empty where there is none. */
export const writtenIn = (part: Component, name: string): string => propertyOf(part, name)?.value ?? ''

/** A text as it was before it was written (RFC 5545 §3.3.11). */
const plainText = (text: string): string =>
  text.replaceAll(/\\([\\;,nN])/g, (_, mark: string) => (mark === 'n' || mark === 'N' ? ' ' : mark))

/** What a component is called, for people. */
export const titleOf = (part: Component): string =>
  plainText(writtenIn(part, 'SUMMARY') || writtenIn(part, 'UID')).slice(0, 60)
