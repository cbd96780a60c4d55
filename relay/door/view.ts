import type { DoorService, DoorView } from '@acolhida/core/door'
import { decimals } from '@acolhida/core/money/currency'
import { type Practice, placeOf, questionnaireOf, type Service, termsInForce } from '@acolhida/core/practice'
import { withoutPoints } from '@acolhida/core/questions'
import { shownText, versionFingerprint } from '@acolhida/core/terms'
import type { Instant } from '@acolhida/core/time'
import type { Store } from '../store/store.ts'
import { published, visitorOf } from './circumstances.ts'
import { isOffered, mayBeSeen } from './understand.ts'

function doorService(practice: Practice, service: Service): DoorService {
  const questionnaire = questionnaireOf(practice, service)
  return {
    id: service.id,
    name: service.name,
    description: service.description,
    ...(service.section ? { section: service.section } : {}),
    ...(service.picture ? { picture: service.picture } : {}),
    ...(service.lengthHidden ? {} : { minutes: service.minutes }),
    ...(service.priceHidden ? {} : { price: service.price }),
    extras: service.extras ?? [],
    ...(hasCodes(practice, service) ? { codes: true } : {}),
    seats: service.seats,
    byDate: service.seats > 1 && service.groupAt === 'dates',
    places: service.places.flatMap((id) => {
      const place = placeOf(practice, id)
      if (!place) return []
      const { kind, name, address, whoCalls, told, travel } = place
      return [
        {
          id,
          kind,
          name,
          ...(told === 'door' && address ? { address } : {}),
          ...(whoCalls ? { whoCalls } : {}),
          ...(kind === 'client' && travel ? { travel } : {}),
        },
      ]
    }),
    ...(questionnaire
      ? {
          questionnaire: {
            id: questionnaire.id,
            version: questionnaire.version,
            questions: questionnaire.questions.map(withoutPoints),
          },
        }
      : {}),
    terms: termsInForce(practice, service).map(({ id, version }) => ({
      id,
      number: version.number,
      title: version.title,
      text: shownTerms(practice, service, version.text),
      fingerprint: versionFingerprint(id, version),
    })),
    straight: service.approval.new !== 'ask',
    colour: service.colour,
  }
}

const hasCodes = (practice: Practice, service: Service): boolean =>
  (practice.codes ?? []).some((one) => !one.services?.length || one.services.includes(service.id))

/** The text of terms as the door shows it. */
export const shownTerms = (practice: Practice, service: Service, text: string): string =>
  shownText(text, { practitioner: practice.profile.name, service: service.name })

/**
 * What anybody may see of a practice; what is not open to everyone is left out.
 * @param key of a service's own link, which shows that service, too
 */
export function doorView(store: Store, now: Instant, key?: string): DoorView {
  const { practice, seal } = published(store)
  const { profile } = practice
  const visitor = visitorOf(store, key)
  return {
    slug: profile.slug,
    practice: {
      name: profile.name,
      headline: profile.headline,
      greeting: profile.greeting,
      zone: profile.zone,
      ...(profile.phone ? { phone: profile.phone } : {}),
      ...(profile.tax ? { tax: profile.tax.name } : {}),
    },
    currency: { code: profile.currency, decimals: decimals(profile.currency) },
    services: practice.services
      .filter((service) => isOffered(store, service, now, key) && mayBeSeen(store, service, key))
      .map((service) => doorService(practice, service)),
    ...(seal ? { seal } : {}),
    ...(visitor ? { visitor: { standing: visitor.standing, invited: visitor.invited } } : {}),
    now,
  }
}
