/** What some work took, in µs. */
export interface Spent {
  cpu: number
  wall: number
}
export const zero = (): Spent => ({ cpu: 0, wall: 0 })

/** Adds what some work takes of the processor and by the clock, in µs. */
export async function spend(on: Spent, work: () => unknown): Promise<void> {
  const wall = performance.now()
  const before = process.cpuUsage()
  const done = work()
  if (done instanceof Promise) await done
  const { user, system } = process.cpuUsage(before)
  on.cpu += user + system
  on.wall += (performance.now() - wall) * 1_000
}

/** µs of CPU that each of several works takes on average, done in turns in one run so that all have the same machine. */
export async function sideBySide<K extends string>(
  works: Record<K, () => unknown>,
  rounds = 200,
  warm = 30,
): Promise<Record<K, number>> {
  const names = Object.keys(works) as K[]
  const spent = new Map(names.map((name) => [name, zero()]))
  for (let i = -warm; i < rounds; i++) {
    for (const name of names) await spend(i < 0 ? zero() : spent.get(name)!, works[name])
  }
  return Object.fromEntries(names.map((name) => [name, spent.get(name)!.cpu / rounds])) as Record<K, number>
}
