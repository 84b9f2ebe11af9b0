import { liveThrough } from '../../support/lives'

/** A thousand lives of a basket: whatever is done to it, no gram of solids appears or vanishes. */
describe('a thousand lives', () => {
  const { faults, lines, refused, entries } = liveThrough(1, 1000)
  it('weights and solids add up at their end and on their way, and the doubt that is stated explains what is missing', () => {
    expect(faults).toEqual([])
  })
  it('are lives worth the name: in parts, and hardly anything refused', () => {
    expect(lines).toBeGreaterThan(1400)
    expect(entries / lines).toBeGreaterThan(7)
    expect(refused).toBeLessThan(0.005 * entries)
  })
})
