import fc from 'fast-check'
import { expect, it } from 'vitest'
import { escapeHtml, jsonForHtml } from './html.ts'

it('what anybody writes stays text in HTML', () => {
  expect(escapeHtml(`<b onclick="x('y')">&</b>`)).toBe(
    '&lt;b onclick=&quot;x(&#39;y&#39;)&quot;&gt;&amp;&lt;/b&gt;',
  )
  fc.assert(fc.property(fc.string(), (text) => !/[<>"']/.test(escapeHtml(text))))
})

it('data says the same in HTML, and never ends its block', () => {
  fc.assert(
    fc.property(fc.jsonValue(), (value) => {
      const said = jsonForHtml(value)
      expect(said).not.toMatch(/[<>&\u2028\u2029]/)
      expect(JSON.parse(said)).toEqual(JSON.parse(JSON.stringify(value)))
    }),
  )
  expect(jsonForHtml('</script><!--')).toBe('"\\u003c/script\\u003e\\u003c!--"')
})
