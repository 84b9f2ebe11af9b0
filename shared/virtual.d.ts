declare module '#migrations' {
  export const migrations: readonly { name: string; sql: string }[]
}
declare module '#lessons' {
  export const lessons: readonly { name: string; text: string }[]
}
declare module '#reference' {
  export const reference: import('#core/foods').ReferenceSource
}

declare module '#answers' {
  export const answers: { answers: Record<string, object>; parts: Record<string, object> }
}
declare module '#pageParts' {
  export const pageParts: Record<string, string>
}
