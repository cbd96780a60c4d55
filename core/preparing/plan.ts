import type { PlanEach } from '../planning/index.ts'
import { type Practice, serviceOf } from '../practice/index.ts'
import type { PathSession } from './course.ts'

/** What each session of a path is, for planning them; nothing where a service of it is gone from the practice. */
export function plannedAs(practice: Practice, sessions: readonly PathSession[]): PlanEach[] | undefined {
  const each = sessions.flatMap(({ service: id, minutes, least, most }): PlanEach[] => {
    const service = serviceOf(practice, id)
    return service
      ? [
          {
            ...{ service, minutes },
            ...(least === undefined ? {} : { least: Math.max(1, least) }),
            ...(most === undefined ? {} : { greatest: most }),
          },
        ]
      : []
  })
  return each.length === sessions.length ? each : undefined
}
