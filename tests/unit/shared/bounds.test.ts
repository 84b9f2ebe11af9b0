import * as fc from 'fast-check'
import { fields } from '#core/log'
import { machineSettings } from '#shared/contracts'

const words = (schema: { safeParse: (value: unknown) => { error?: { issues: { message: string }[] } } }, value: unknown) =>
  schema.safeParse(value).error?.issues.map(issue => issue.message)

describe('lower bounds', () => {
  it('a basket weighs what a scale can tell', () => {
    expect(words(fields.weightG, 1e-300)).toEqual([expect.stringMatching(/no scale here weighs that/)])
    expect(words(fields.weightG, 0.01)).toBeUndefined()
    expect(words(fields.weightG, 0)).toContain('The weight must be above zero.')
  })
  it('a tray has room for something', () => {
    const machine = {
      id: '018f0000-0000-7000-8000-000000000001',
      name: 'Stack',
      kind: 'dehydrator',
      trays: 5,
      trayTareG: 0,
      trayTares: {},
      watts: 400,
      lowC: 35,
      highC: 70,
    }
    expect(words(machineSettings, { ...machine, trayAreaM2: 1e-9 })).toEqual([expect.stringMatching(/Under 10 cm²/)])
    expect(words(machineSettings, { ...machine, trayAreaM2: 0.1 })).toBeUndefined()
  })
  it.each([
    ['zero width', '\u200B\u200D\uFEFF'],
    ['of direction', '\u202E\u2066'],
    ['soft hyphens', '\u00AD'],
  ])('a name of signs %s alone is none', (_, name) => {
    expect(words(fields.text(60), name)!.join()).toMatch(/can be seen|Write something/)
  })
  it('half a sign is refused, whole ones of any script are not', () => {
    expect(words(fields.text(60), 'chili \uD83C')).toEqual([expect.stringMatching(/half of a sign/)])
    for (const name of ['🌶', 'Ñora', '辣椒', 'फूलगोभी', '3 mm', 'לימון']) expect(words(fields.text(60), name)).toBeUndefined()
  })
  it('whatever is refused is refused in words', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), text => {
        for (const message of words(fields.text(60), text) ?? []) expect(message.length).toBeGreaterThan(10)
      }),
    )
  })
})
