import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startRelay, type TestRelay } from './setup.ts'

let house: TestRelay
let api: string
beforeAll(async () => {
  house = await startRelay()
  api = `${house.door}/api/door/${house.slug}`
})
afterAll(() => house.close())

describe('headers', () => {
  it('allow nothing from elsewhere, on door and desk', async () => {
    for (const url of [api, `${house.desk}/api/status`]) {
      const { headers } = await fetch(url)
      const policy = headers.get('content-security-policy') ?? ''
      expect(policy).toContain("default-src 'none'")
      expect(policy).not.toContain('unsafe')
      expect(headers.get('x-content-type-options')).toBe('nosniff')
      expect(headers.get('cache-control')).toBe('no-store')
      expect(headers.get('x-powered-by')).toBeNull()
    }
  })
})
