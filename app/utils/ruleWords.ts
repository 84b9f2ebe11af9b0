import type { Lesson, PlayRule } from '#core/practice'
import { formatDegrees, type TemperatureUnit } from '#core/units'

const TRUSTS: Record<NonNullable<PlayRule['trusts']>, string> = {
  clock: 'goes by the clock',
  weight: 'weighs, and goes by the water that the weight tells',
  feel: 'feels pieces',
  constant: 'weighs until the weight stands still',
  jarAir: 'reads the air of a closed jar',
  machine: 'goes by the display',
}
const BED = {
  leave: 'leaves it on at night',
  off: 'switches it off at night',
  warm: 'holds it warm at night',
  out: 'takes it out at bedtime',
}

/** A player's rule in words, of what a lesson lets matter. */
export function ruleWords(rule: PlayRule, { deeds, cuts, from, second }: Lesson, unit: TemperatureUnit): string {
  const parts: (string | false | undefined)[] = [
    cuts && rule.cut && `takes it ${cuts.find(cut => cut.key === rule.cut)?.words.toLowerCase() ?? rule.cut}`,
    from === 'load' &&
      rule.trusts &&
      (rule.trusts === 'clock' && rule.firstLook
        ? `goes by the clock, ${rule.firstLook === 1 ? 'the card’s hours' : `${rule.firstLook} times the card’s hours`}`
        : TRUSTS[rule.trusts]) +
        (rule.trusts === 'feel'
          ? [
              '',
              `${rule.thick === false ? 'as they come' : 'thick ones'} from ${rule.places === 1 ? 'one place' : 'three places'}`,
              rule.cooled === false ? 'warm' : 'cooled',
            ].join(', ')
          : ''),
    deeds.includes('heat') && rule.hotterC ? `${formatDegrees(rule.hotterC, unit)} hotter` : undefined,
    deeds.includes('heat') && rule.hotH ? `hot for the first ${rule.hotH} h` : undefined,
    deeds.includes('heat') && from === 'load' && rule.bedtime ? BED[rule.bedtime] : undefined,
    deeds.includes('swap') && rule.swapAt ? 'changes places halfway' : undefined,
    deeds.includes('turn') && rule.turnAt ? 'turns the sheets' : undefined,
    second && rule.moveH ? `moves it after ${rule.moveH} h, or when it rains` : undefined,
    rule.extraH ? `gives it ${rule.extraH} h more` : undefined,
    deeds.includes('rest') && rule.restDays !== undefined ? `rests it ${rule.restDays} days` : undefined,
    deeds.includes('back') && rule.onBeads === 'back' ? 'puts it back on beads' : undefined,
    deeds.includes('grind') && rule.coolMin !== undefined ? `cools it ${rule.coolMin} min` : undefined,
    deeds.includes('grind') && rule.burstS ? `runs of ${rule.burstS} s` : undefined,
    deeds.includes('pack') && rule.lid ? `closes it with: ${rule.lid.replace('-', ' ')}` : undefined,
    deeds.includes('pack') && rule.gel ? 'gel with it' : undefined,
  ]
  return parts.filter(Boolean).join('; ') || 'the careful way'
}
