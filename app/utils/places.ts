import { IconBook2, IconBottle, IconCalendarTime, IconClockHour4, IconSchool, IconSettings2, IconSoup, IconStack2 } from './icons'

/** The places of the rail, in its order. */
export const PLACES = [
  { to: '/', name: 'Now', icon: IconClockHour4 },
  { to: '/batches', name: 'Batches', icon: IconStack2 },
  { to: '/plan', name: 'Plan', icon: IconCalendarTime },
  { to: '/shelf', name: 'Shelf', icon: IconBottle },
  { to: '/kitchen', name: 'Kitchen', icon: IconSoup },
  { to: '/practice', name: 'Practice', icon: IconSchool },
  { to: '/reference', name: 'Reference', icon: IconBook2 },
  { to: '/workshop', name: 'Set-up', icon: IconSettings2 },
] as const

/** Whether a page belongs to a place: a jar stands on the shelf. */
export function isPlaceOf(to: string, path: string): boolean {
  if (to === '/') return path === '/'
  return (
    path === to ||
    path.startsWith(`${to}/`) ||
    (to === '/shelf' && path.startsWith('/jars')) ||
    (to === '/batches' && (path === '/intake' || path === '/compare')) ||
    (to === '/workshop' && (path.startsWith('/machines') || path === '/logger' || path === '/home' || path.startsWith('/data')))
  )
}
