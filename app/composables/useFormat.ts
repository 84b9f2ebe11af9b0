import { fill, type Quantities } from '#core/errors'
import type { Interval } from '#core/stats'
import {
  formatHours,
  formatLength,
  gramsIn,
  formatShare,
  formatTemperature,
  formatVolume,
  formatWeight,
  temperatureIn,
  measuresIn,
} from '#core/units'
import { inVessels, volumeOf } from '#core/using'
import type { Channel } from '#shared/contracts'
import { startOfDay } from '#core/planning'
import { DAY, MINUTE } from '#core/time'

/** What a price is of, kg. */
const KILOGRAMS = { g: 1, oz: 16 / gramsIn(1000, 'oz') }

/** Every figure on a page is written by these, in the units and on the clock of the household. */
export function useFormat() {
  const { settings } = storeToRefs(useHouseholdStore())
  const formats = computed(() => {
    const { timeZone, clockHours, locale } = settings.value
    const make = (options: Intl.DateTimeFormatOptions) =>
      new Intl.DateTimeFormat(locale, { timeZone, hour12: clockHours === 12, ...options })
    return {
      time: make({ hour: clockHours === 12 ? 'numeric' : '2-digit', minute: '2-digit' }),
      weekday: make({ weekday: 'short' }),
      day: make({ weekday: 'short', day: 'numeric', month: 'short' }),
      date: make({ day: 'numeric', month: 'short', year: 'numeric' }),
      month: make({ month: 'short', year: 'numeric' }),
    }
  })
  const weight = (grams: number) => formatWeight(grams, settings.value.weightUnit)
  const time = (at: number) => formats.value.time.format(at)
  const sameDay = (a: number, b: number) => startOfDay(a, settings.value.timeZone) === startOfDay(b, settings.value.timeZone)

  /** A time today, or with its day when it is not today. */
  function moment(at: number, now: number): string {
    if (!Number.isFinite(at)) return 'not at this heat'
    if (sameDay(at, now)) return time(at)
    return Math.abs(at - now) < 6 * DAY ? `${formats.value.weekday.format(at)} ${time(at)}` : formats.value.day.format(at)
  }

  /** Figures of a range; one where both ends read the same. */
  function range(interval: Interval, write: (value: number) => string): string {
    const low = write(interval.p10)
    const high = write(interval.p90)
    if (low === high) return low
    // "352–455 g" rather than "352 g–455 g"; pounds and ounces stand in full at both ends.
    const unit = /\u00A0\D+$/.exec(high)?.[0]
    return unit && low.endsWith(unit) && !low.includes('lb') && !high.includes('lb')
      ? `${low.slice(0, -unit.length)}–${high}`
      : `${low} to ${high}`
  }

  const window = (from: number, to: number, now: number) =>
    sameDay(from, to) ? `${moment(from, now)}–${time(to)}` : `${moment(from, now)} to ${moment(to, now)}`

  return {
    /** A minute of the day on the household's clock. */
    clock: (minute: number) => time(startOfDay(Date.now(), settings.value.timeZone) + minute * MINUTE),
    /** A sentence or a name of the reference, its figures in the household’s units. */
    sentence: (text: string) => measuresIn(text, settings.value),
    /** A sentence whose figures stand beside it by name. */
    told: ({ template, quantities }: { template: string; quantities: Quantities }) =>
      fill(template, quantities, quantityWords(settings.value)),
    weight,
    time,
    moment,
    range,
    hours: formatHours,
    share: formatShare,
    weightRange: (interval: Interval) => range(interval, weight),
    temperature: (celsius: number) => formatTemperature(celsius, settings.value.temperatureUnit),
    /** A figure of a device, in the household's units. */
    reading(channel: Channel, value: number): string {
      switch (channel) {
        case 'weightG':
          return weight(value)
        case 'celsius':
          return `${(Math.round(temperatureIn(value, settings.value.temperatureUnit) * 10) / 10).toFixed(1).replace('-', '−')}\u00A0°${settings.value.temperatureUnit}`
        case 'humidity':
          return formatShare(value)
        case 'pressurePa':
          return `${Math.round(value)}\u00A0Pa`
      }
    },
    /** A volume in the spoons and cups of the household. */
    vessels: (ml: number) => inVessels(ml, settings.value.measures).words,
    /** The volume of a jar, a cup, a tray. */
    volume: (ml: number) => formatVolume(ml, settings.value.weightUnit),
    /** What a kilogram costs, by the kilogram or the pound: the figure, and what it is of. */
    priceOf: (perKg: number) => perKg * KILOGRAMS[settings.value.weightUnit],
    priceFrom: (price: number) => price / KILOGRAMS[settings.value.weightUnit],
    each: () => (settings.value.weightUnit === 'oz' ? 'pound' : 'kilogram'),
    /** An amount of the household's money. */
    money: (amount: number) => `${amount.toFixed(2)}\u00A0${settings.value.money}`,
    length: (mm: number) => formatLength(mm, settings.value.weightUnit),
    /** How heavy it lies: a millilitre, or a cup of it. */
    density: (gMl: number) =>
      settings.value.weightUnit === 'g' ? `${gMl.toFixed(2)}\u00A0g/mL` : `${weight(gMl * volumeOf(1, 'cup', 'us'))} a cup`,
    day: (at: number) => formats.value.day.format(at),
    date: (at: number) => formats.value.date.format(at),
    month: (at: number) => formats.value.month.format(at),
    window,
    /** When something will be dry, seen from now: a window that has begun has only its end. */
    finish: (from: number, to: number, now: number) =>
      to < now ? 'likely dry already' : from <= now ? `dry by ${moment(to, now)}` : `dry ${window(from, to, now)}`,
  }
}
