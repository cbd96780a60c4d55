import type { Block, Hours, Practice, Week } from './types.ts'

type Kept = NonNullable<Block['reservedFor']>

/** Reserved hours that no longer name one id; open to all where nothing else was said. */
function withoutKept(block: Block, list: 'services' | 'places', id: string): Block {
  const { reservedFor, ...open } = block
  if (!reservedFor?.[list]?.includes(id)) return block
  const { [list]: before, ...others } = reservedFor
  const left = (before ?? []).filter((other) => other !== id)
  const kept: Kept = left.length > 0 ? { ...others, [list]: left } : others
  return Object.keys(kept).length > 0 ? { ...open, reservedFor: kept } : open
}

const inWeek = (weekly: Week, change: (block: Block) => Block): Week =>
  weekly.map((blocks) => blocks.map(change)) as Week

const inHours = (hours: Hours, change: (block: Block) => Block): Hours => ({
  weekly: inWeek(hours.weekly, change),
  ...(hours.seasons
    ? {
        seasons: hours.seasons.map((season) => ({ ...season, weekly: inWeek(season.weekly, change) })),
      }
    : {}),
  changedDays: hours.changedDays.map((day) => ({ ...day, blocks: day.blocks.map(change) })),
})

const inAllHours = (practice: Practice, change: (block: Block) => Block): Practice => ({
  ...practice,
  hours: inHours(practice.hours, change),
  places: practice.places.map((place) =>
    place.hours ? { ...place, hours: inHours(place.hours, change) } : place,
  ),
})

/** A practice without one of its services, and without what only led there: reserved hours, suggestions. */
export function withoutService(practice: Practice, id: string): Practice {
  const rest = inAllHours(practice, (block) => withoutKept(block, 'services', id))
  return {
    ...rest,
    services: rest.services.filter((service) => service.id !== id),
    ...(rest.paths
      ? {
          paths: rest.paths.map((path) => ({
            ...path,
            stations: path.stations.filter((one) => one.does !== 'sessions' || one.service !== id),
          })),
        }
      : {}),
    questionnaires: rest.questionnaires.map((questionnaire) => ({
      ...questionnaire,
      rules: questionnaire.rules
        .filter(({ effect }) => effect.do !== 'suggest' || effect.service !== id)
        .map((rule) =>
          rule.effect.do === 'close'
            ? {
                ...rule,
                effect: {
                  ...rule.effect,
                  services: rule.effect.services.filter((service) => service !== id),
                },
              }
            : rule,
        ),
    })),
  }
}

/** A practice without one of its preparations: it goes out with no service any more, and nobody need do it. */
export const withoutPreparation = (practice: Practice, id: string): Practice => ({
  ...practice,
  preparations: (practice.preparations ?? []).filter((one) => one.id !== id),
  ...(practice.paths
    ? {
        paths: practice.paths.map((path) => ({
          ...path,
          stations: path.stations.filter((one) => one.does !== 'prepare' || one.preparation !== id),
        })),
      }
    : {}),
  services: practice.services.map((service) =>
    service.prepares ? { ...service, prepares: service.prepares.filter((one) => one !== id) } : service,
  ),
})

/** A practice without one of its places, where no service takes place any more. */
export function withoutPlace(practice: Practice, id: string): Practice {
  const rest = inAllHours(practice, (block) => withoutKept(block, 'places', id))
  return { ...rest, places: rest.places.filter((place) => place.id !== id) }
}
