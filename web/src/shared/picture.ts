/** Hand a file to whoever sits in front of the page. */
export function handOver(content: Blob, name: string) {
  const at = URL.createObjectURL(content)
  const link = document.createElement('a')
  link.href = at
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(at), 10_000)
}

/** A name that any disk takes. */
export function fileName(name: string, what: string): string {
  const plain = name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
  return `${plain || 'build'}-${what}`
}

const LOOKS = [
  'fill', 'fill-opacity', 'stroke', 'stroke-width', 'stroke-dasharray', 'stroke-opacity',
  'stroke-linejoin', 'stroke-linecap', 'opacity', 'font-family', 'font-size', 'font-weight',
  'text-anchor', 'paint-order', 'visibility', 'display', 'transform', 'transform-origin',
] // prettier-ignore

/** A drawing of a page as a file of its own: its looks written into it, nothing left outside. */
export function standingAlone(drawing: SVGSVGElement): string {
  const copy = drawing.cloneNode(true) as SVGSVGElement
  const from = [drawing, ...drawing.querySelectorAll<SVGElement>('*')]
  const to = [copy, ...copy.querySelectorAll<SVGElement>('*')]
  from.forEach((each, k) => {
    const looks = getComputedStyle(each)
    const target = to[k]
    if (!target) return
    target.removeAttribute('class')
    target.setAttribute(
      'style',
      LOOKS.map((look) => `${look}:${looks.getPropertyValue(look)}`).join(';'),
    )
  })
  const { width, height } = drawing.getBoundingClientRect()
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg')
  copy.setAttribute('width', String(width))
  copy.setAttribute('height', String(height))
  if (!copy.getAttribute('viewBox')) copy.setAttribute('viewBox', `0 0 ${width} ${height}`)
  const ground = document.createElementNS('http://www.w3.org/2000/svg', 'rect')
  ground.setAttribute('width', '100%')
  ground.setAttribute('height', '100%')
  ground.setAttribute('fill', getComputedStyle(document.body).getPropertyValue('--linen') || '#fff')
  copy.prepend(ground)
  return new XMLSerializer().serializeToString(copy)
}

/** A drawing as dots, so many for each of its own. */
export async function asPng(svg: string, finer = 2): Promise<Blob> {
  const image = new Image()
  image.src = URL.createObjectURL(new Blob([svg], { type: 'image/svg+xml' }))
  try {
    await image.decode()
    const canvas = document.createElement('canvas')
    canvas.width = Math.round(image.width * finer)
    canvas.height = Math.round(image.height * finer)
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height)
    return await new Promise((done, fail) =>
      canvas.toBlob((blob) => (blob ? done(blob) : fail(new Error('no picture'))), 'image/png'),
    )
  } finally {
    URL.revokeObjectURL(image.src)
  }
}
