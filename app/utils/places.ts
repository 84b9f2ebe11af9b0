/** The places of the rail, in its order. */
export const PLACES = [
  { to: '/', name: 'Now', icon: 'tabler:clock-hour-4' },
  { to: '/batches', name: 'Batches', icon: 'tabler:stack-2' },
  { to: '/shelf', name: 'Shelf', icon: 'tabler:bottle' },
  { to: '/kitchen', name: 'Kitchen', icon: 'tabler:soup' },
  { to: '/reference', name: 'Reference', icon: 'tabler:book-2' },
  { to: '/workshop', name: 'Workshop', icon: 'tabler:settings-2' },
] as const

/** Whether a page belongs to a place: a jar stands on the shelf. */
export function isPlaceOf(to: string, path: string): boolean {
  if (to === '/') return path === '/'
  return (
    path === to ||
    path.startsWith(`${to}/`) ||
    (to === '/shelf' && path.startsWith('/jars')) ||
    (to === '/batches' && (path === '/intake' || path === '/compare')) ||
    (to === '/workshop' && (path.startsWith('/machines') || path === '/logger' || path.startsWith('/data')))
  )
}
