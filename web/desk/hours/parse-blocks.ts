import type { Block } from '@acolhida/core/practice'
import { minutesOf, time } from '@acolhida/core/time'

/** A line of hours as it is typed: "9-13, 14:00-18:00". */
export function parseBlocks(text: string, before: readonly Block[]): Block[] {
  return text
    .split(/[,;]+/)
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => {
      const match = /^(\d{1,2})(?:[:.h](\d{2}))?\s*(?:-|–|to)\s*(\d{1,2})(?:[:.h](\d{2}))?$/i.exec(part)
      if (!match) throw new Error(`“${part}” is not a stretch of hours; write it as 9:00 – 13:00.`)
      const clock = (hour: string, minute = '00'): Block['from'] => time(`${hour.padStart(2, '0')}:${minute}`)
      const from = clock(match[1]!, match[2])
      const to = clock(match[3]!, match[4])
      // What was kept for somebody stays so while the block begins where it did.
      const same = before.find((block) => block.from === from)
      return { from, to, ...(same?.reservedFor ? { reservedFor: same.reservedFor } : {}) }
    })
    .sort((a, b) => minutesOf(a.from) - minutesOf(b.from))
}

/** Hours as one types them: "09:00 – 13:00, 14:00 – 18:00". */
export const typedBlocks = (blocks: readonly Block[]): string =>
  blocks.map(({ from, to }) => `${from} – ${to}`).join(', ')
