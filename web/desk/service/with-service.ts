import type { Practice, Service } from '@acolhida/core/practice'

/** The practice with one of its services changed. */
export const withService = (
  practice: Practice,
  id: string,
  change: (service: Service) => Service,
): Practice => ({
  ...practice,
  services: practice.services.map((service) => (service.id === id ? change(service) : service)),
})
