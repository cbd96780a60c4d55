// @vitest-environment happy-dom
import { act, renderHook } from '@testing-library/react'
import { expect, it } from 'vitest'
import { useShown } from './use-shown.ts'

const drawn = (kept: string) => renderHook(({ kept }) => useShown(kept), { initialProps: { kept } })

it('shows what was chosen at once, and what is kept as soon as it is another', () => {
  const { result, rerender } = drawn('a')
  act(() => result.current[1]('b'))
  expect(result.current[0]).toBe('b')
  rerender({ kept: 'b' })
  expect(result.current[0]).toBe('b')
  // Undone elsewhere.
  rerender({ kept: 'a' })
  expect(result.current[0]).toBe('a')
})

it('is not led back by an earlier choice that arrives after a later one was made', () => {
  const { result, rerender } = drawn('a')
  act(() => result.current[1]('b'))
  act(() => result.current[1]('c'))
  rerender({ kept: 'b' })
  expect(result.current[0]).toBe('c')
  rerender({ kept: 'c' })
  expect(result.current[0]).toBe('c')
  rerender({ kept: 'd' })
  expect(result.current[0]).toBe('d')
})

it('follows what somebody else keeps meanwhile', () => {
  const { result, rerender } = drawn('a')
  act(() => result.current[1]('b'))
  rerender({ kept: 'z' })
  expect(result.current[0]).toBe('z')
})
