/** Value of a typed sum such as `180/6` or `2*(3+1.5)`; null when it is not one. Comma and point both part decimals. */
export function arithmetic(text: string): number | null {
  const s = text.replace(/\s+/g, '').replace(/,/g, '.')
  let at = 0
  const sum = (): number => {
    let v = product()
    while (s[at] === '+' || s[at] === '-') v = s[at++] === '+' ? v + product() : v - product()
    return v
  }
  const product = (): number => {
    let v = factor()
    while (s[at] === '*' || s[at] === '/' || s[at] === '×' || s[at] === ':') {
      const op = s[at++]
      const f = factor()
      v = op === '*' || op === '×' ? v * f : v / f
    }
    return v
  }
  const factor = (): number => {
    if (s[at] === '-') {
      at++
      return -factor()
    }
    if (s[at] === '(') {
      at++
      const v = sum()
      if (s[at++] !== ')') return NaN
      return v
    }
    const m = /^\d*\.?\d+(e[-+]?\d+)?/i.exec(s.slice(at))
    if (!m) return NaN
    at += m[0].length
    return Number(m[0])
  }
  const v = s === '' ? NaN : sum()
  return at === s.length && Number.isFinite(v) ? v : null
}
