/** What a table brings in. */
export type TableKind = 'weighIns' | 'inventory'

export interface Column {
  key: string
  name: string
  needed: boolean
  /** Names that a heading may have. */
  called: RegExp
}

/** What each table may say of a line. */
export const TABLE_COLUMNS: Record<TableKind, readonly Column[]> = {
  weighIns: [
    { key: 'batch', name: 'Batch number', needed: true, called: /batch|lot|load\b|nr|no\.?$|number|#/i },
    { key: 'time', name: 'Date and time', needed: true, called: /date|time|when|\bat\b|day/i },
    { key: 'weight', name: 'Weight', needed: true, called: /weight|gram|\bg\b|\bkg\b|\boz\b|\blb\b|mass/i },
    { key: 'clock', name: 'Time of day, if apart', needed: false, called: /clock|hour|time of day/i },
    { key: 'tray', name: 'Tray', needed: false, called: /tray|position|shelf/i },
  ],
  inventory: [
    { key: 'food', name: 'Food', needed: true, called: /food|product|spice|item|what|ingredient/i },
    { key: 'weight', name: 'Weight', needed: true, called: /weight|gram|net|\bg\b|\bkg\b|\boz\b|\blb\b|amount|quantity/i },
    { key: 'time', name: 'Packed or opened', needed: false, called: /packed|opened|date|since|bought/i },
    { key: 'form', name: 'Form', needed: false, called: /form|cut|kind|type/i },
    { key: 'place', name: 'Where it stands', needed: false, called: /place|where|shelf|location|stands|cupboard/i },
    { key: 'name', name: 'What it is called', needed: false, called: /name|label|called|note/i },
    { key: 'package', name: 'Packed in', needed: false, called: /package|container|jar|lid|bag/i },
    { key: 'size', name: 'Jar, mL', needed: false, called: /size|volume|\bml\b/i },
    { key: 'bestBy', name: 'Best before', needed: false, called: /best|expir|until|\bbb\b|use by/i },
    { key: 'price', name: 'Price', needed: false, called: /price|cost|paid/i },
    { key: 'source', name: 'From', needed: false, called: /source|from|shop|maker|grower/i },
  ],
}
