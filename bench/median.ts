/** The median time of some work in ms, after it has been warmed up. */
export function median(work: () => unknown, times = 60): number {
  for (let i = 0; i < 20; i++) work()
  const taken = Array.from({ length: times }, () => {
    const began = performance.now()
    work()
    return performance.now() - began
  }).sort((a, b) => a - b)
  return taken[Math.floor(times / 2)]!
}
