/** A span of time to the nearest five minutes above an hour: "9 h 20 min", "45 min", "under a minute". */
export function formatHours(hours: number): string {
  if (!Number.isFinite(hours)) return 'never'
  const minutes = hours * 60
  if (minutes < 1) return 'under a minute'
  if (minutes < 57.5) return `${Math.round(minutes)}\u00A0min`
  const fives = Math.round(minutes / 5) * 5
  const whole = Math.floor(fives / 60)
  const rest = fives % 60
  return rest === 0 || whole >= 48 ? `${whole}\u00A0h` : `${whole}\u00A0h\u00A0${rest}\u00A0min`
}

/** A fraction as a percentage: whole from 10 % up, one decimal below. */
export function formatShare(fraction: number): string {
  const percent = fraction * 100
  return `${percent < 9.95 && percent > 0 ? Number(percent.toFixed(1)) : Math.round(percent)}\u00A0%`
}
