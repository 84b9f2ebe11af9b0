/**
 * Minutes after midnight of a time as typed: "18:30", "18.30", "6:30 pm", "6 pm", "1830", "noon"; undefined for anything else. An hour
 * alone is none: nobody knows which half of the day is meant.
 */
export function minuteOfDay(text: string): number | undefined {
  const typed = text
    .replaceAll(/[\u00A0\u202F]/g, ' ')
    .trim()
    .toLowerCase()
  if (typed === 'noon') return 12 * 60
  if (typed === 'midnight') return 0
  const match = /^(\d{1,2})(?:[:.]?(\d{2}))?\s*([ap])?\.?(?:m\.?)?$/.exec(typed)
  if (!match) return undefined
  const [, hours, minutes, half] = match
  const hour = Number(hours)
  const minute = Number(minutes ?? 0)
  if (minute > 59 || (minutes === undefined && !half)) return undefined
  if (!half) return /m/.test(typed) || hour > 23 ? undefined : hour * 60 + minute
  return hour < 1 || hour > 12 ? undefined : ((hour % 12) + (half === 'p' ? 12 : 0)) * 60 + minute
}
