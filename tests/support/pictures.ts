/** The head of a JPEG of so many pixels (ISO/IEC 10918-1: SOI, a frame, EOI); the rest of it is of no concern to whoever keeps it. */
export function jpeg(width: number, height: number, rest = 0): Buffer {
  const frame = Buffer.from([
    0xff,
    0xc0,
    0,
    17,
    8,
    height >> 8,
    height & 255,
    width >> 8,
    width & 255,
    3,
    1,
    0x22,
    0,
    2,
    0x11,
    1,
    3,
    0x11,
    1,
  ])
  const jfif = Buffer.from([0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, 0, 1, 1, 0, 0, 1, 0, 1, 0, 0])
  return Buffer.concat([Buffer.from([0xff, 0xd8]), jfif, frame, Buffer.alloc(rest, 7), Buffer.from([0xff, 0xd9])])
}
