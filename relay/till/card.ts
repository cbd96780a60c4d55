/** Whether a number is that of a card: 12 to 19 figures whose check figure is right (ISO/IEC 7812-1, Luhn). */
export function isCardNumber(typed: string): boolean {
  const figures = typed.replace(/[ -]/g, '')
  if (!/^[0-9]{12,19}$/.test(figures)) return false
  const sum = [...figures].reverse().reduce((total, figure, i) => {
    const doubled = Number(figure) * (i % 2 === 1 ? 2 : 1)
    return total + (doubled > 9 ? doubled - 9 : doubled)
  }, 0)
  return sum % 10 === 0
}

/**
 * The last month of a card as `YYYY-MM`, as it stands on it: "05/28". Nothing where it is no month.
 * @param year in which it is read
 */
export function expiryIn(typed: string, year: number): string | undefined {
  const [, month = '', short = ''] = /^\s*([0-9]{1,2})\s*[/.-]\s*(?:20)?([0-9]{2})\s*$/.exec(typed) ?? []
  if (Number(month) < 1 || Number(month) > 12) return undefined
  return `${String(year).slice(0, 2)}${short}-${month.padStart(2, '0')}`
}
