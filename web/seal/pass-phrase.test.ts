import { describe, expect, it } from 'vitest'
import { openWith, sealWith } from './pass-phrase.ts'

describe('what is sealed with a pass phrase', () => {
  it('opens with that alone, as it was, and two sealings of it differ', async () => {
    const text = 'She told me – “não digas a ninguém” 🌱'
    const sealed = await sealWith('correct horse battery', text)
    expect(sealed).not.toBe(await sealWith('correct horse battery', text))
    expect(sealed.split('.')).toHaveLength(5)
    expect(JSON.parse(atob(sealed.split('.')[0]!))).toMatchObject({
      alg: 'PBES2-HS512+A256KW',
      enc: 'A256GCM',
    })
    expect(await openWith('correct horse battery', sealed)).toBe(text)
    await expect(openWith('correct horse batterx', sealed)).rejects.toThrow('does not open it')
  })

  it('is refused where anything of it was changed, or it asks for endless work', async () => {
    const sealed = await sealWith('correct horse battery', 'x')
    const parts = sealed.split('.')
    const changed = [
      ...parts.slice(0, 3),
      `${parts[3]!.startsWith('A') ? 'B' : 'A'}${parts[3]!.slice(1)}`,
      parts[4],
    ]
    await expect(openWith('correct horse battery', changed.join('.'))).rejects.toThrow('does not open it')
    const header = JSON.parse(atob(parts[0]!)) as object
    const endless = btoa(JSON.stringify({ ...header, p2c: 2_000_000_000 })).replace(/=+$/, '')
    await expect(openWith('correct horse battery', [endless, ...parts.slice(1)].join('.'))).rejects.toThrow(
      'does not open it',
    )
  })
})
