import { openRelay } from './years.ts'

/** Opens the relay of a folder and says what it took; in a process of its own, so that nothing else is counted. */
const heap = (): number => {
  globalThis.gc?.()
  return process.memoryUsage().heapUsed / 1_048_576
}
const before = heap()
const began = performance.now()
const cpu = process.cpuUsage()
const relay = openRelay(process.argv[2]!)
const { user, system } = process.cpuUsage(cpu)
const wall = performance.now() - began
const held = heap()
console.log(
  `opened in ${Math.round(wall)} ms (${Math.round((user + system) / 1_000)} ms of CPU), ` +
    `heap ${held.toFixed(1)} MB, of which ${(held - before).toFixed(1)} MB by opening it`,
)
if (relay.here.keeper.house.pack === undefined) throw new Error('Nothing was opened.')
process.exit(0)
