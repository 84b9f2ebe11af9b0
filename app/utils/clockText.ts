/** Minutes after midnight of a time as typed, "18:30" or "18.30"; undefined for anything else. */
export function minuteOfDay(text: string): number | undefined {
  const match = /^(\d{1,2})[:.](\d{2})$/.exec(text.trim())
  return match && Number(match[1]) < 24 && Number(match[2]) < 60 ? Number(match[1]) * 60 + Number(match[2]) : undefined
}
