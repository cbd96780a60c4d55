import type { Path, Practice } from '@acolhida/core/practice'

/** The practice with one of its paths changed. */
export const withPath = (p: Practice, id: string, to: (path: Path) => Path): Practice => ({
  ...p,
  paths: (p.paths ?? []).map((other) => (other.id === id ? to(other) : other)),
})
