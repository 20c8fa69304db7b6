import { ref } from 'vue'

const TRIED = 'oaken-scale-newer-pages'
const own = /[^/]*$/.exec(
  document.querySelector<HTMLScriptElement>('script[type="module"][src]')?.src ?? '',
)?.[0]

/** The pages that the workshop has now, where they are newer than this one. */
export const newer = ref('')

/** Every answer says which pages the workshop has. */
export function notedPages(response: Response): void {
  const there = response.headers.get('Oaken-Pages')
  if (own && there && there !== own && sessionStorage.getItem(TRIED) !== there) newer.value = there
}

/** Open the pages that the workshop has now; once, should they turn out to be these again. */
export function openNewer(): void {
  sessionStorage.setItem(TRIED, newer.value)
  location.reload()
}
