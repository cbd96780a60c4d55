import { dirname } from 'node:path'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'
import { sentencesHeld } from './sentences.ts'
import { readPlan } from './walls.ts'

const root = dirname(dirname(fileURLToPath(import.meta.url)))

/** Where what a client reads is put together. */
const ROOMS = /^(?:web\/(?:door|questions|words)|core\/(?:messages|house|request))\//

/** What the relay tells the desk of a mail that may be lost. */
const DESKS = 'The relay ended while it was being handed over; it may have gone or not.'

describe('what a client reads', () => {
  it('stands in a catalogue, in no page, no letter and no reckoning', () => {
    const files = [...readPlan(root).text].filter(([file]) => ROOMS.test(file) && !/\.test\.tsx?$/.test(file))
    expect(files.length).toBeGreaterThan(60)
    const found = files.flatMap(([file, text]) => sentencesHeld(file, text))
    expect(found.filter((one) => !one.endsWith(DESKS))).toEqual([])
  })

  it('is found where it hides', () => {
    const source = `
      const why = reason ? 'Please look once more' : \`\${name} is too long.\`
      throw new Error('Nobody but a builder reads this.')
      const page = <p className="grid gap-2" title="Way back">{say('door')} Hello <b aria-label={label}>{'one-word'}</b></p>
    `
    expect(sentencesHeld('a.tsx', source)).toEqual([
      'a.tsx:2 Please look once more',
      'a.tsx:2 x  is too long.',
      'a.tsx:4 Way back',
      'a.tsx:4 Hello',
    ])
  })
})
