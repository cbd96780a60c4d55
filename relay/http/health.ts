import type { Express } from 'express'
import type { Serving } from './serving.ts'

/**
 * Whether file, mail and calendars are well, for whoever watches over the machine: 200 where all is, 503 where something
 * is not; which, and nothing else.
 */
export function serveHealth(app: Express, { health, here }: Serving): void {
  app.get('/health', (_req, res) => {
    const troubles = new Set(health.troubles.map((trouble) => trouble.split('.')[0]))
    const calendars = here.keeper.house.calendars().some(({ problem }) => problem !== undefined)
    const state = (bad: boolean): 'well' | 'trouble' => (bad ? 'trouble' : 'well')
    res.setHeader('cache-control', 'no-store')
    res.status(troubles.size > 0 ? 503 : 200).json({
      file: state(troubles.has('file')),
      mail: state(troubles.has('mail')),
      // Another's calendar that can't be read makes no relay ill.
      calendars: state(calendars),
    })
  })
}
