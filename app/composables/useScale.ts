import type { DeviceAnswer } from '#shared/contracts'

/** A figure older than this is not what lies on the scale now. */
const FRESH_MS = 15_000
/** Readings that agree within this share, or two grams, are steady. */
const STEADY_SHARE = 0.003
const STEADY_G = 2
const LOOKED_AT = 3

/** What a connected scale shows: one that stands at the machine, or at none. Undefined where there is none, or it is silent. */
export function useScale(machineId: string) {
  const { now } = useClock()
  const scales = shallowRef<DeviceAnswer[]>([])
  const seen = shallowRef<{ at: number; value: number }[]>([])
  onMounted(async () => {
    const devices = await call('devices').catch(() => [])
    scales.value = devices.filter(device => device.kind === 'scale' && (device.machineId === machineId || device.machineId === null))
    seen.value = scales.value.flatMap(device => device.last.filter(last => last.channel === 'weightG')).slice(0, 1)
  })
  onReadings(readings => {
    const reading = readings.find(item => item.channel === 'weightG' && scales.value.some(scale => scale.id === item.deviceId))
    if (reading) seen.value = [...seen.value.slice(1 - LOOKED_AT), { at: Date.now(), value: reading.value }]
  })
  return computed(() => {
    const last = seen.value.at(-1)
    if (!last || Math.max(now.value, Date.now()) - last.at > FRESH_MS) return undefined
    const values = seen.value.map(item => item.value)
    const steady = values.length === LOOKED_AT && Math.max(...values) - Math.min(...values) <= Math.max(STEADY_G, STEADY_SHARE * last.value)
    return { grams: last.value, steady }
  })
}
