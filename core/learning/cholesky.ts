/** A symmetric positive matrix as the product of a lower triangle with itself. */
export interface Factor {
  lower: Float64Array
  size: number
  /** The first column of each row that is not zero: all before it stays zero. */
  first: Int32Array
  halfLogDeterminant: number
}

/**
 * Cholesky's factor of a symmetric positive definite matrix, row by row, each from its first column on (its envelope): where
 * what hangs together stands together, most of it is never touched.
 * @param matrix `size` × `size`; left as it was
 * @throws RangeError where it is not positive definite
 */
export function factor(matrix: Float64Array, size: number): Factor {
  const lower = new Float64Array(matrix)
  const first = new Int32Array(size)
  let halfLogDeterminant = 0
  for (let i = 0; i < size; i++) {
    const row = i * size
    let from = 0
    while (from < i && lower[row + from] === 0) from++
    first[i] = from
    for (let j = from; j <= i; j++) {
      const other = j * size
      let sum = lower[row + j]!
      for (let k = from > first[j]! ? from : first[j]!; k < j; k++) sum -= lower[row + k]! * lower[other + k]!
      if (i === j) {
        if (!(sum > 0)) throw new RangeError('The matrix is not positive definite.')
        lower[row + i] = Math.sqrt(sum)
        halfLogDeterminant += 0.5 * Math.log(sum)
      } else lower[row + j] = sum / lower[other + j]!
    }
  }
  return { lower, size, first, halfLogDeterminant }
}

/** The x of A·x = b, from the factor of A. */
export function solve({ lower, size, first }: Factor, right: Float64Array): Float64Array {
  const x = new Float64Array(right)
  for (let i = 0; i < size; i++) {
    for (let k = first[i]!; k < i; k++) x[i]! -= lower[i * size + k]! * x[k]!
    x[i]! /= lower[i * size + i]!
  }
  for (let i = size - 1; i >= 0; i--) {
    x[i]! /= lower[i * size + i]!
    for (let k = first[i]!; k < i; k++) x[k]! -= lower[i * size + k]! * x[i]!
  }
  return x
}
