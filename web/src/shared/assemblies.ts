/** The assemblies that one lies in, the outermost first: of "Fuselage/Nose" also "Fuselage". */
export function chain(assembly: string): string[] {
  const names = assembly.split('/')
  return names.map((_, k) => names.slice(0, k + 1).join('/'))
}

/** Whether a part is part of an assembly, or of one within it. */
export const liesWithin = (part: { assembly: string }, assembly: string) =>
  chain(part.assembly).includes(assembly)
