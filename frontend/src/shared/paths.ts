// Reading and replacing one field of a document by its path, such as circuits.0.route.1.length_m.

type Tree = Record<string, unknown>

export function valueAt(document: unknown, path: string): unknown {
  return path.split('.').reduce<unknown>((here, part) => (here as Tree | undefined)?.[part], document)
}

/** A copy of the document with one field replaced; what lies beside the path is shared, not copied. */
export function withValue<T>(document: T, path: string, value: unknown): T {
  const [first, ...rest] = path.split('.')
  const copy = (Array.isArray(document) ? [...document] : { ...document }) as unknown as Tree
  copy[first!] = rest.length ? withValue(copy[first!], rest.join('.'), value) : value
  return copy as T
}
