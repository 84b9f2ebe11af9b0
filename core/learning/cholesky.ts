/**
 * The shape of a symmetric matrix of which each row is kept from its first column that is not zero up to the diagonal (its envelope).
 * Where what hangs together stands together, that is a small part of it, and all that its factor needs.
 */
export interface Envelope {
  size: number
  /** The first column kept of each row, and where the row begins, less that column: (i, j) stands at `start[i] + j`. */
  first: Int32Array
  start: Int32Array
  /** How many figures are kept. */
  kept: number
}

/** @param first the first column of each row that is not zero, at most the row itself */
export function envelopeOf(first: Int32Array): Envelope {
  const size = first.length
  const start = new Int32Array(size)
  let kept = 0
  for (let i = 0; i < size; i++) {
    start[i] = kept - first[i]!
    kept += i - first[i]! + 1
  }
  return { size, first, start, kept }
}

/** A symmetric positive matrix as the product of a lower triangle with itself. */
export interface Factor {
  envelope: Envelope
  lower: Float64Array
  halfLogDeterminant: number
}

/**
 * Cholesky's factor of a symmetric positive definite matrix, row by row, within its envelope.
 * @param lower the matrix's lower triangle as the envelope keeps it; the factor takes its place
 * @throws RangeError where it is not positive definite
 */
export function factor(envelope: Envelope, lower: Float64Array): Factor {
  const { size, first, start } = envelope
  let halfLogDeterminant = 0
  for (let i = 0; i < size; i++) {
    const row = start[i]!
    const from = first[i]!
    for (let j = from; j <= i; j++) {
      const other = start[j]!
      const both = first[j]!
      let sum = lower[row + j]!
      for (let k = from > both ? from : both; k < j; k++) sum -= lower[row + k]! * lower[other + k]!
      if (i === j) {
        if (!(sum > 0)) throw new RangeError('The matrix is not positive definite.')
        lower[row + i] = Math.sqrt(sum)
        halfLogDeterminant += 0.5 * Math.log(sum)
      } else lower[row + j] = sum / lower[other + j]!
    }
  }
  return { envelope, lower, halfLogDeterminant }
}

/** The x of A·x = b, from the factor of A. */
export function solve({ envelope: { size, first, start }, lower }: Factor, right: Float64Array): Float64Array {
  const x = new Float64Array(right)
  for (let i = 0; i < size; i++) {
    const row = start[i]!
    let sum = x[i]!
    for (let k = first[i]!; k < i; k++) sum -= lower[row + k]! * x[k]!
    x[i] = sum / lower[row + i]!
  }
  for (let i = size - 1; i >= 0; i--) {
    const row = start[i]!
    const value = x[i]! / lower[row + i]!
    x[i] = value
    for (let k = first[i]!; k < i; k++) x[k]! -= lower[row + k]! * value
  }
  return x
}
