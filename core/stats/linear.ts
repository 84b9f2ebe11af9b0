/** A square symmetric matrix, as rows. */
export type SymmetricMatrix = readonly (readonly number[])[]

/**
 * Cholesky factor L (lower triangle) with L·Lᵀ = A.
 * @returns undefined when A is not positive definite.
 */
export function choleskyFactor(a: SymmetricMatrix): number[][] | undefined {
  const n = a.length
  const factor = Array.from({ length: n }, () => new Array<number>(n).fill(0))
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = a[i]![j]!
      for (let k = 0; k < j; k++) sum -= factor[i]![k]! * factor[j]![k]!
      if (i === j) {
        if (!(sum > 0)) return undefined
        factor[i]![i] = Math.sqrt(sum)
      } else {
        factor[i]![j] = sum / factor[j]![j]!
      }
    }
  }
  return factor
}

/** Solves A·x = b for a symmetric positive definite A; undefined when A is not so. */
export function solveSymmetric(a: SymmetricMatrix, b: readonly number[]): number[] | undefined {
  const factor = choleskyFactor(a)
  return factor && substitute(factor, b)
}

/** Inverse of a symmetric positive definite matrix; undefined when it is not so. */
export function invertSymmetric(a: SymmetricMatrix): number[][] | undefined {
  const factor = choleskyFactor(a)
  if (!factor) return undefined
  return a.map((_, column) =>
    substitute(
      factor,
      a.map((__, row) => (row === column ? 1 : 0)),
    ),
  )
}

function substitute(factor: readonly (readonly number[])[], b: readonly number[]): number[] {
  const n = b.length
  const x = [...b]
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i]! -= factor[i]![k]! * x[k]!
    x[i]! /= factor[i]![i]!
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i]! -= factor[k]![i]! * x[k]!
    x[i]! /= factor[i]![i]!
  }
  return x
}
