import type { Runs } from './raster'

/** Pixels of at least this value are solid. */
export const SOLID = 48

/** Half-open pixel intervals [from, to) of one layer, row by row: those of row y from rowStart[y] up to rowStart[y + 1]. */
export interface Intervals {
  rowStart: Uint32Array
  from: Uint32Array
  to: Uint32Array
  label: Uint32Array
  /** Σ value / 255 of its pixels: covered area, finer than a count of pixels; 0 of voids */
  light: Float32Array
}
export interface Labels {
  count: number
  pixels: Float64Array
  /** covered area in pixels */
  light: Float64Array
  sumX: Float64Array
  sumY: Float64Array
  edge: Uint8Array
  /** longest interval of each region: a place that is surely in it, as a centroid need not be */
  longest: Uint32Array
}

/** Half-open pixel intervals of the solid, or of the void between and around it. */
export function intervals(runs: Runs, empty: boolean): Intervals {
  const rowStart = new Uint32Array(runs.height + 1)
  const from: number[] = [],
    to: number[] = [],
    light: number[] = []
  for (let row = 0; row < runs.height; row++) {
    rowStart[row] = from.length
    let begin = 0,
      end = 0,
      sum = 0
    for (let i = runs.rowStart[row]!; i < runs.rowStart[row + 1]!; i++) {
      if (runs.value[i]! < SOLID) continue
      const x = runs.x[i]!
      if (x !== end) {
        if (empty) {
          if (x > end) {
            from.push(end)
            to.push(x)
            light.push(0)
          }
        } else if (end > begin) {
          from.push(begin)
          to.push(end)
          light.push(sum)
        }
        begin = x
        sum = 0
      }
      end = x + runs.length[i]!
      sum += (runs.length[i]! * runs.value[i]!) / 255
    }
    if (empty) {
      if (end < runs.width) {
        from.push(end)
        to.push(runs.width)
        light.push(0)
      }
    } else if (end > begin) {
      from.push(begin)
      to.push(end)
      light.push(sum)
    }
  }
  rowStart[runs.height] = from.length
  return {
    rowStart,
    from: Uint32Array.from(from),
    to: Uint32Array.from(to),
    label: new Uint32Array(from.length),
    light: Float32Array.from(light),
  }
}

/** Connected regions within a layer (4-neighbours). With `width` given, notes which reach the picture's edge. */
export function label(s: Intervals, height: number, width: number | null): Labels {
  const n = s.from.length
  const parent = new Uint32Array(n)
  for (let i = 0; i < n; i++) parent[i] = i
  const find = (a: number): number => {
    while (parent[a] !== a) {
      parent[a] = parent[parent[a]!]!
      a = parent[a]!
    }
    return a
  }
  for (let row = 1; row < height; row++) {
    let j = s.rowStart[row - 1]!
    for (let i = s.rowStart[row]!; i < s.rowStart[row + 1]!; i++) {
      while (j < s.rowStart[row]! && s.to[j]! <= s.from[i]!) j++
      for (let k = j; k < s.rowStart[row]! && s.from[k]! < s.to[i]!; k++) {
        const a = find(i),
          b = find(k)
        if (a !== b) parent[Math.max(a, b)] = Math.min(a, b)
      }
    }
  }
  const number = new Int32Array(n).fill(-1)
  let count = 0
  for (let i = 0; i < n; i++) {
    const r = find(i)
    if (number[r] === -1) number[r] = count++
    s.label[i] = number[r]!
  }
  const out: Labels = {
    count,
    pixels: new Float64Array(count),
    light: new Float64Array(count),
    sumX: new Float64Array(count),
    sumY: new Float64Array(count),
    edge: new Uint8Array(count),
    longest: new Uint32Array(count),
  }
  const most = new Uint32Array(count)
  for (let row = 0; row < height; row++)
    for (let i = s.rowStart[row]!; i < s.rowStart[row + 1]!; i++) {
      const c = s.label[i]!,
        length = s.to[i]! - s.from[i]!
      out.pixels[c]! += length
      out.light[c]! += s.light[i]!
      if (length > most[c]!) {
        most[c] = length
        out.longest[c] = i
      }
      out.sumX[c]! += (length * (s.from[i]! + s.to[i]!)) / 2
      out.sumY[c]! += length * row
      if (width !== null && (row === 0 || row === height - 1 || s.from[i] === 0 || s.to[i] === width)) out.edge[c] = 1
    }
  return out
}

/** Calls back for every pair of intervals of two layers that overlap within `slack` pixels. */
export function touch(
  a: Intervals,
  b: Intervals,
  height: number,
  slack: number,
  found: (i: number, j: number) => void,
): void {
  for (let row = 0; row < height; row++) {
    for (let other = Math.max(0, row - slack); other <= Math.min(height - 1, row + slack); other++) {
      let j = b.rowStart[other]!
      const end = b.rowStart[other + 1]!
      for (let i = a.rowStart[row]!; i < a.rowStart[row + 1]!; i++) {
        while (j < end && b.to[j]! + slack <= a.from[i]!) j++
        for (let k = j; k < end && b.from[k]! < a.to[i]! + slack; k++) found(i, k)
      }
    }
  }
}
