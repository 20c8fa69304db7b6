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

/** The western letters of the type of the pages, as they are shipped, to be carried by a file. */
async function shippedType(): Promise<string> {
  const faces = [...document.styleSheets]
    .flatMap((sheet) => [...sheet.cssRules])
    .filter((rule) => rule instanceof CSSFontFaceRule)
    .filter((rule) => /U\+0+-0*FF/i.test(rule.style.getPropertyValue('unicode-range')))
  const written = await Promise.all(
    faces.map(async (face) => {
      const url = /url\("?([^")]+)"?\)/.exec(face.style.getPropertyValue('src'))?.[1]
      if (!url) return ''
      const base = face.parentStyleSheet?.href ?? location.href
      const bytes = new Uint8Array(await (await fetch(new URL(url, base))).arrayBuffer())
      const packed = btoa(bytes.reduce((text, byte) => text + String.fromCharCode(byte), ''))
      const name = face.style.getPropertyValue('font-family')
      return `@font-face{font-family:${name};font-weight:200 800;src:url(data:font/woff2;base64,${packed})}`
    }),
  )
  return written.join('')
}

/** A drawing that carries its type along. */
export async function withType(svg: string): Promise<string> {
  return svg.replace(/^(<svg[^>]*>)/, `$1<style>${await shippedType()}</style>`)
}

/** A drawing as dots, so many for each of its own. */
export async function asPng(svg: string, finer = 2): Promise<Blob> {
  const image = new Image()
  const whole = await withType(svg)
  image.src = URL.createObjectURL(new Blob([whole], { type: 'image/svg+xml' }))
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
