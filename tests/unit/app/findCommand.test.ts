import { findCommand, foundBy } from '../../../app/utils/findCommand'
import { labelCode } from '../../../app/utils/labelCode'

describe('what is typed into the finder', () => {
  it('opens by number, opens a form, logs a weight, takes out of a jar', () => {
    expect(findCommand('Batch 39', 'g')).toEqual({ do: 'open', kind: 'batch', number: 39 })
    expect(findCommand(' jar #104 ', 'g')).toEqual({ do: 'open', kind: 'jar', number: 104 })
    expect(findCommand('weigh 40', 'g')).toEqual({ do: 'act', act: 'weigh', number: 40 })
    expect(findCommand('take out batch 7', 'g')).toEqual({ do: 'act', act: 'unload', number: 7 })
    expect(findCommand('640 g tray 3 batch 40', 'g')).toEqual({ do: 'log', grams: 640, tray: 3, number: 40 })
    expect(findCommand('1.2 kg batch 40', 'g')).toEqual({ do: 'log', grams: 1200, tray: undefined, number: 40 })
    expect(findCommand('take 20 g jar 62', 'g')).toEqual({ do: 'take', grams: 20, number: 62 })
  })
  it('reads a weight without a unit in the household’s own', () => {
    const taken = findCommand('take 2 jar 62', 'oz')
    expect(taken).toMatchObject({ do: 'take', number: 62 })
    expect((taken as { grams: number }).grams).toBeCloseTo(56.7, 1)
  })
  it('leaves words to be looked for, and nonsense alone', () => {
    for (const text of ['beetroot', 'top board', 'batch', 'jar seven', 'take jar 62', '0 g tray 1 batch 4', 'a lot batch 4'])
      expect([text, findCommand(text, 'g')]).toEqual([text, undefined])
  })
  it('knows settings and places by the words that people use', () => {
    for (const [typed, to] of [
      ['settings', '/workshop/household'],
      ['units', '/workshop/household'],
      ['°F', '/workshop/household'],
      ['backup', '/data'],
      ['scan', '/scan'],
      ['tablet', '/home'],
    ] as const)
      expect([typed, foundBy(typed).map(item => item.to)]).toEqual([typed, expect.arrayContaining([to])])
    expect(foundBy('b')).toEqual([])
    expect(foundBy('beetroot')).toEqual([])
  })
})

describe('the code of a label', () => {
  it('is a jar’s or a batch’s address, on whatever machine', () => {
    expect(labelCode('http://127.0.0.1:4170/j/104')).toEqual({ kind: 'jar', number: 104 })
    expect(labelCode('https://larder.local:4443/b/27?x=1')).toEqual({ kind: 'batch', number: 27 })
    for (const other of ['https://example.test/', 'WIFI:S:home;;', 'https://larder.local/j/abc', '104', 'javascript:alert(1)//j/5'])
      expect([other, labelCode(other)]).toEqual([other, undefined])
  })
})
