/** A symmetric positive matrix as the product of a lower triangle with itself. */
export interface Factor {
  lower: Float64Array
  size: number
  halfLogDeterminant: number
}

/**
 * Cholesky's factor of a symmetric positive definite matrix, row by row.
 * @param matrix `size` × `size`; left as it was
 * @throws RangeError where it is not positive definite
 */
export function factor(matrix: Float64Array, size: number): Factor {
  const lower = new Float64Array(matrix)
  let halfLogDeterminant = 0
  for (let i = 0; i < size; i++) {
    const row = i * size
    for (let j = 0; j <= i; j++) {
      const other = j * size
      let sum = lower[row + j]!
      for (let k = 0; k < j; k++) sum -= lower[row + k]! * lower[other + k]!
      if (i === j) {
        if (!(sum > 0)) throw new RangeError('The matrix is not positive definite.')
        lower[row + i] = Math.sqrt(sum)
        halfLogDeterminant += 0.5 * Math.log(sum)
      } else lower[row + j] = sum / lower[other + j]!
    }
  }
  return { lower, size, halfLogDeterminant }
}

/** The x of A·x = b, from the factor of A. */
export function solve({ lower, size }: Factor, right: Float64Array): Float64Array {
  const x = new Float64Array(right)
  for (let i = 0; i < size; i++) {
    for (let k = 0; k < i; k++) x[i]! -= lower[i * size + k]! * x[k]!
    x[i]! /= lower[i * size + i]!
  }
  for (let i = size - 1; i >= 0; i--) {
    for (let k = i + 1; k < size; k++) x[i]! -= lower[k * size + i]! * x[k]!
    x[i]! /= lower[i * size + i]!
  }
  return x
}
