import { type FoundHours, readHoursFile, writeHoursFile } from '@acolhida/core/formats/calendars'
import type { Practice } from '@acolhida/core/practice'
import { longWeekdayName, shortDate } from '@acolhida/core/time'
import { useState } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { FileButton, saveFile } from '../parts/file.tsx'
import { typedBlocks } from './parse-blocks.ts'
import type { Scope } from './scope.ts'

/** Hours as a file: out for those who plan by them, and in from another program; shown before they are taken. */
export function HoursFile({ practice, scope }: { practice: Practice; scope: Scope }) {
  const [found, setFound] = useState<FoundHours>()
  const open = async (file: File): Promise<void> => {
    setFound(undefined)
    setFound(readHoursFile(await file.text(), scope.zone, relayNow(), `The file “${file.name}”`))
  }
  return (
    <section className="sheet mt-5 grid gap-3 p-5" aria-labelledby="hours-file">
      <h2 id="hours-file">In a file</h2>
      <p className="text-[13px] text-soft">
        When you work, in the form other calendars read (iCalendar, VAVAILABILITY).
      </p>
      <button
        type="button"
        className="press justify-self-start"
        onClick={() =>
          saveFile(
            'hours.ics',
            'text/calendar',
            writeHoursFile(practice, scope.hours, scope.zone, relayNow()),
          )
        }
      >
        Save these hours
      </button>
      <FileButton accept=".ics,text/calendar" onFile={open}>
        Take hours from a file
      </FileButton>
      {found && (
        <div className="note bg-tile-soft text-[14px] text-tile-ink">
          <ul>
            {found.hours.weekly.map((blocks, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: weekdays keep their place
              <li key={i}>
                {longWeekdayName(i + 1)}: {typedBlocks(blocks) || 'none'}
              </li>
            ))}
          </ul>
          <p className="mt-1">
            {found.hours.changedDays.length} changed days until {shortDate(found.until)}.
            {found.skipped.length > 0 && ` Not understood: ${found.skipped.slice(0, 5).join('; ')}.`}
          </p>
          <ActButton
            className="press press-go mt-2"
            onAct={() =>
              changePractice(db, 'hours taken from a file', (p) => scope.change(p, () => found.hours))
            }
            then={() => setFound(undefined)}
          >
            Take these hours
          </ActButton>
        </div>
      )}
    </section>
  )
}
