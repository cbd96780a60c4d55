import type { DoorService, DoorView } from '@acolhida/core/door'
import { decimals } from '@acolhida/core/money/currency'
import { type Practice, placeOf, questionnaireOf, type Service, termsInForce } from '@acolhida/core/practice'
import { shownText, versionFingerprint } from '@acolhida/core/terms'
import type { Instant } from '@acolhida/core/time'

function doorService(practice: Practice, service: Service): DoorService {
  const questionnaire = questionnaireOf(practice, service)
  return {
    id: service.id,
    name: service.name,
    description: service.description,
    minutes: service.minutes,
    price: service.price,
    seats: service.seats,
    byDate: service.seats > 1 && service.groupAt === 'dates',
    places: service.places.flatMap((id) => {
      const place = placeOf(practice, id)
      if (!place) return []
      const { kind, name, address, whoCalls, told } = place
      return [
        {
          id,
          kind,
          name,
          ...(told === 'door' && address ? { address } : {}),
          ...(whoCalls ? { whoCalls } : {}),
        },
      ]
    }),
    ...(questionnaire
      ? {
          questionnaire: {
            id: questionnaire.id,
            version: questionnaire.version,
            questions: questionnaire.questions,
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

/** The text of terms as the door shows it. */
export const shownTerms = (practice: Practice, service: Service, text: string): string =>
  shownText(text, { practitioner: practice.profile.name, service: service.name })

/** What anybody may see of a practice; what is not open to everyone is left out. */
export function doorView(practice: Practice, now: Instant): DoorView {
  const { profile } = practice
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
      .filter((service) => service.on && service.bookableBy === 'everyone')
      .map((service) => doorService(practice, service)),
    now,
  }
}
