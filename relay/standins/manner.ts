/** How a stand-in behaves: takes what it is given, refuses it for good, is slow about it, or does not answer. */
export const MANNERS = ['takes', 'refuses', 'slow', 'down'] as const
export type Manner = (typeof MANNERS)[number]

export const isManner = (value: unknown): value is Manner => MANNERS.some((one) => one === value)
