import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { Parcel } from './parcel'

interface Shelf extends DBSchema {
  parcels: { key: string; value: Parcel }
}

/** Where the browser keeps what waits to be sent; one for all of its tabs. */
const NAME = 'dulse-outbox'
let opening: Promise<IDBPDatabase<Shelf>> | undefined

function shelf(): Promise<IDBPDatabase<Shelf>> {
  opening ??= openDB<Shelf>(NAME, 1, {
    upgrade: db => void db.createObjectStore('parcels', { keyPath: 'id' }),
    // A newer Dulse in another tab waits for this one to let go.
    blocking: () => {
      void opening?.then(db => db.close())
      opening = undefined
    },
    terminated: () => {
      opening = undefined
    },
  })
  opening.catch(() => {
    opening = undefined
  })
  return opening
}

/** @throws where the browser's storage is full or closed to pages */
export const keepParcel = async (parcel: Parcel) => void (await (await shelf()).put('parcels', parcel))
export const dropParcel = async (id: string) => (await shelf()).delete('parcels', id)
/** All that is kept, oldest first: ids begin with their time. */
export const keptParcels = async () => (await shelf()).getAll('parcels')
