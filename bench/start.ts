import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { relayOfYears, SIZES } from './years.ts'

/** How long a relay takes to start on the file of many years, and how much memory it holds then. */
export async function benchStart(): Promise<void> {
  for (const [bookings, people] of SIZES) {
    const years = await relayOfYears(bookings, people)
    await years.relay.stop()
    const said = execFileSync(
      process.execPath,
      ['--expose-gc', '--import', 'tsx', join(import.meta.dirname, 'start-child.ts'), years.folder],
      { encoding: 'utf8' },
    )
    years.remove()
    console.log(`  ${bookings} bookings of ${people} people: ${said.trim()}`)
  }
}
