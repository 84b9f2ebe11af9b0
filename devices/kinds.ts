import type { Channel, DeviceKind } from '#shared/contracts'
import type { World } from './world'

/** A simulated device: what it is, how often it reads, and what it reads of its world. */
export interface SimulatedDevice {
  id: string
  name: string
  kind: DeviceKind
  /** Whether it stands at the machine with the rack. */
  atRack: boolean
  everyMs: number
  read: (world: World, at: number) => { channel: Channel; value: number }[]
}

export const DEVICES = {
  scale: {
    id: '019ab000-0000-7000-8000-000000000001',
    name: 'Scale, simulated',
    kind: 'scale',
    atRack: true,
    everyMs: 5000,
    read: (world, at) => [{ channel: 'weightG', value: world.scaleG(at) }],
  },
  probe: {
    id: '019ab000-0000-7000-8000-000000000002',
    name: 'Probe, simulated',
    kind: 'probe',
    atRack: true,
    everyMs: 10_000,
    read: (world, at) => [{ channel: 'celsius', value: world.chamberC(at) }],
  },
  hygrometer: {
    id: '019ab000-0000-7000-8000-000000000003',
    name: 'Room hygrometer, simulated',
    kind: 'hygrometer',
    atRack: true,
    everyMs: 30_000,
    read: (world, at) => {
      const { celsius, humidity } = world.room(at)
      return [
        { channel: 'celsius', value: celsius },
        { channel: 'humidity', value: humidity },
      ]
    },
  },
  controller: {
    id: '019ab000-0000-7000-8000-000000000004',
    name: 'Freeze dryer, simulated',
    kind: 'controller',
    atRack: false,
    everyMs: 30_000,
    read: (world, at) => {
      const { celsius, pressurePa } = world.freezeDryer(at)
      return [
        { channel: 'celsius', value: celsius },
        { channel: 'pressurePa', value: pressurePa },
      ]
    },
  },
} as const satisfies Record<string, SimulatedDevice>
export type DeviceName = keyof typeof DEVICES
