import type { Practice } from '@acolhida/core/practice'

/** A service with which something goes out, or does no more; in the order of the list. */
export function withPrepares<S extends { prepares?: string[] }>(
  { preparations = [] }: Practice,
  service: S,
  id: string,
  on: boolean,
): S {
  const before = service.prepares ?? []
  const prepares = preparations
    .map((one) => one.id)
    .filter((other) => (other === id ? on : before.includes(other)))
  return { ...service, prepares }
}
