import type { Endpoint } from '@acolhida/core/contract'
import { call } from './client.ts'

/** How an endpoint of the contract is asked. */
export interface CallParts<B> {
  key?: string
  bearer?: string
  signal?: AbortSignal
  /** What stands for the names in its path. */
  to?: Record<string, string>
  query?: Record<string, string | undefined>
  body?: B
}

/**
 * Asks the relay for one thing of the contract.
 * @throws RelayError for a refusal, and when it can't be reached
 */
export function ask<B, A>(
  endpoint: Endpoint<B, A>,
  { to = {}, query = {}, body, ...how }: CallParts<B>,
): Promise<A> {
  const path = endpoint.path.replaceAll(/:(\w+)/g, (_, name: string) => encodeURIComponent(to[name] ?? ''))
  const said = Object.entries(query).flatMap(([name, value]) => (value === undefined ? [] : [[name, value]]))
  const search = said.length > 0 ? `?${new URLSearchParams(said)}` : ''
  return call<A>(path + search, { method: endpoint.method, ...how, ...(body === undefined ? {} : { body }) })
}
