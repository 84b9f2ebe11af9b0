import { evenAir, Piece, SHAPES, type FaceAir, type PieceSettings, type PieceShape } from '#core/simulation'

/** Zeros of Bessel's J0 (Abramowitz and Stegun, table 9.5; written down from memory). */
const J0_ZEROS = [2.4048256, 5.5200781, 8.6537279, 11.7915344, 14.9309177, 18.071064, 21.2116366, 24.3524715, 27.4934791, 30.6346065]
const sum = (count: number, term: (n: number) => number) => Array.from({ length: count }, (_, n) => term(n)).reduce((a, b) => a + b, 0)

/**
 * Share of the moisture that is left in a body whose face is in balance with the air at once, at Fourier number Dt/l²:
 * J. Crank, The Mathematics of Diffusion (2nd ed. 1975), equations 4.18 (slab), 5.23 (cylinder) and 6.20 (sphere).
 */
const LEFT: Record<PieceShape, (fourier: number) => number> = {
  slab: fo => sum(60, n => (8 / ((2 * n + 1) ** 2 * Math.PI ** 2)) * Math.exp((-((2 * n + 1) ** 2) * Math.PI ** 2 * fo) / 4)),
  cylinder: fo => sum(J0_ZEROS.length, n => (4 / J0_ZEROS[n]! ** 2) * Math.exp(-(J0_ZEROS[n]! ** 2) * fo)),
  sphere: fo => sum(60, n => (6 / ((n + 1) ** 2 * Math.PI ** 2)) * Math.exp(-((n + 1) ** 2) * Math.PI ** 2 * fo)),
}
/** The same of the middle of a slab, equation 4.17. */
const MIDDLE = (fo: number) =>
  sum(60, n => ((4 / Math.PI) * (-1) ** n * Math.exp((-((2 * n + 1) ** 2) * Math.PI ** 2 * fo) / 4)) / (2 * n + 1))

const linear = (evaporationRate: number): FaceAir => ({ evaporationRate, pull: x => x })
const AT_ONCE = linear(1e9)
const plain = (shape: PieceShape, cells = 64): PieceSettings => ({ shape, startX: 1, diffusionRate: 1, slowing: 0, cells })
function dried(settings: PieceSettings, hours: number, stepH: number, air = AT_ONCE): Piece {
  const piece = new Piece(settings)
  for (let i = 0; i < Math.round(hours / stepH); i++) piece.step(air, stepH)
  return piece
}

describe('a piece against the closed forms of diffusion', () => {
  for (const shape of SHAPES)
    it.each([0.05, 0.1, 0.2, 0.4])(`${shape}: what is left at Dt/l² = %d`, fourier => {
      expect(dried(plain(shape), fourier, 0.0001).meanX).toBeCloseTo(LEFT[shape](fourier), 3)
    })

  it('has the wettest place in the middle, as wet as the closed form says', () => {
    const piece = dried(plain('slab'), 0.2, 0.0005)
    expect(piece.coreX).toBeCloseTo(MIDDLE(0.2), 2)
    for (let i = 1; i < piece.x.length; i++) expect(piece.x[i]!).toBeLessThan(piece.x[i - 1]!)
  })

  it('comes nearer with a finer grid by its square, and with a shorter step in proportion', () => {
    const off = (cells: number, stepH: number) => Math.abs(dried(plain('slab', cells), 0.2, stepH).meanX - LEFT.slab(0.2))
    expect(off(8, 1e-5) / off(16, 1e-5)).toBeGreaterThan(3)
    expect(off(200, 0.01) / off(200, 0.005)).toBeGreaterThan(1.7)
  })

  it('a face that resists slows it as the closed form says: slab with a Biot number of 1 (Crank, 4.53)', () => {
    // First roots of β·tan β = 1, from memory (Crank, table 4.1).
    const roots = [0.8603, 3.4256, 6.4373, 9.5293, 12.6453, 15.7713]
    const left = (fo: number) => sum(roots.length, n => (2 / (roots[n]! ** 2 * (roots[n]! ** 2 + 2))) * Math.exp(-(roots[n]! ** 2) * fo))
    for (const fourier of [0.2, 0.5, 1]) {
      const { meanX } = dried(plain('slab'), fourier, 0.001, linear(1))
      expect(meanX).toBeCloseTo(left(fourier), 2)
    }
  })
})

describe('a piece of food', () => {
  const carrot: PieceSettings = { shape: 'slab', startX: 7, diffusionRate: 0.25, slowing: 0.12 }
  const air = evenAir({ evaporationRate: 1.2, humidity: 0.1 })

  it.each(SHAPES)('keeps what it holds: %s, what has left and what is left are what there was, to 1e-9', shape => {
    const piece = new Piece({ ...carrot, shape, hardening: 0.5 })
    for (let i = 0; i < 400; i++) {
      // Heat, a night off in a damp kitchen, heat again.
      const off = i > 150 && i < 260
      piece.step(off ? evenAir({ evaporationRate: 0.1, humidity: 0.7, warmth: 0.3 }) : air, 0.05)
      expect(Math.abs(piece.meanX + piece.lost - 7)).toBeLessThan(1e-9)
    }
  })

  it('takes water back from damp air, face first', () => {
    const piece = dried(carrot, 40, 0.05, air)
    const before = piece.meanX
    piece.step(evenAir({ evaporationRate: 0.4, humidity: 0.75 }), 1)
    expect(piece.meanX).toBeGreaterThan(before)
    expect(piece.faceX).toBeGreaterThan(piece.coreX)
  })

  it('closes in a hot start: leather outside and wet within, behind the same piece that does not', () => {
    const hot = evenAir({ evaporationRate: 12, humidity: 0.05 })
    const plainly = dried({ ...carrot, hardening: 0 }, 9, 0.05, hot)
    const closed = dried({ ...carrot, hardening: 0.6 }, 9, 0.05, hot)
    expect(closed.skin).toBeGreaterThan(0)
    expect(closed.coreX).toBeGreaterThan(plainly.coreX * 1.5)
    expect(closed.faceX).toBeLessThan(0.15)
  })

  it('a sheet that is turned half way is as dry sooner as one that lies', () => {
    const sheet: PieceSettings = { ...carrot, diffusionRate: 0.06 }
    const lying = dried(sheet, 30, 0.05, air)
    const turned = dried(sheet, 15, 0.05, air)
    turned.turn()
    for (let i = 0; i < 300; i++) turned.step(air, 0.05)
    expect(turned.meanX).toBeLessThan(lying.meanX)
    expect(Math.max(...turned.x)).toBeLessThan(Math.max(...lying.x))
  })
})
