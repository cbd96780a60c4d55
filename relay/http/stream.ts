import type { Request, Response } from 'express'

/** Server-sent events: tells everybody who listens that something has changed, at most once a second. */
export class Stream {
  readonly #listeners = new Set<Response>()
  readonly #most: number
  readonly #apart: number
  readonly #waiting = new Set<string>()
  #beat: NodeJS.Timeout
  #pause: NodeJS.Timeout | undefined

  /**
   * @param most how many may listen at once; the longest-standing gives way
   * @param apart how far apart two tellings are at least, in ms
   */
  constructor(most: number, apart: number) {
    this.#most = most
    this.#apart = apart
    this.#beat = setInterval(() => this.#write(': here\n\n'), 20_000)
    this.#beat.unref()
  }

  listen(req: Request, res: Response): void {
    if (this.#listeners.size >= this.#most) {
      const [oldest] = this.#listeners
      oldest?.end()
      if (oldest) this.#listeners.delete(oldest)
    }
    res.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    })
    res.write('retry: 2000\n\n')
    this.#listeners.add(res)
    req.on('close', () => this.#listeners.delete(res))
  }

  /** Says that something has changed: at once, or together with what else has when the second is over. */
  tell(event: string): void {
    this.#waiting.add(event)
    if (this.#pause) return
    this.#say()
    this.#pause = setTimeout(() => {
      this.#pause = undefined
      if (this.#waiting.size === 0) return
      const [next] = this.#waiting
      if (next !== undefined) this.tell(next)
    }, this.#apart)
    this.#pause.unref()
  }

  #say(): void {
    for (const event of this.#waiting) this.#write(`event: ${event}\ndata: {}\n\n`)
    this.#waiting.clear()
  }

  /** Whoever listens now hears no more, and may ask anew. */
  end(): void {
    for (const listener of this.#listeners) listener.end()
    this.#listeners.clear()
  }

  close(): void {
    clearInterval(this.#beat)
    clearTimeout(this.#pause)
    this.end()
  }

  #write(text: string): void {
    for (const listener of this.#listeners) listener.write(text)
  }
}
