import type { Request, Response } from 'express'

/** Server-sent events: tells everybody who listens that something has changed. */
export class Stream {
  readonly #listeners = new Set<Response>()
  readonly #most: number
  #beat: NodeJS.Timeout

  /** @param most how many may listen at once; the longest-standing gives way */
  constructor(most: number) {
    this.#most = most
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

  tell(event: string): void {
    this.#write(`event: ${event}\ndata: {}\n\n`)
  }

  close(): void {
    clearInterval(this.#beat)
    for (const listener of this.#listeners) listener.end()
    this.#listeners.clear()
  }

  #write(text: string): void {
    for (const listener of this.#listeners) listener.write(text)
  }
}
