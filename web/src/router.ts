import { createRouter, createWebHistory } from 'vue-router'
import BenchPlace from './bench/BenchPlace.vue'
import BuildFrame from './shared/BuildFrame.vue'
import ShedPlace from './shed/ShedPlace.vue'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', name: 'shed', component: ShedPlace, meta: { place: 'shed' } },
    {
      path: '/build/:id',
      component: BuildFrame,
      props: true,
      children: [
        { path: '', redirect: { name: 'bench' } },
        { path: 'plan', name: 'plan', component: () => import('./plan/PlanPlace.vue') },
        { path: 'stock', name: 'stock', component: () => import('./stock/StockPlace.vue') },
        { path: 'balance', name: 'balance', component: () => import('./balance/BalancePlace.vue') },
        { path: 'power', name: 'power', component: () => import('./power/PowerPlace.vue') },
        { path: 'field', name: 'field', component: () => import('./field/FieldPlace.vue') },
        { path: 'sheet', name: 'sheet', component: () => import('./sheet/SheetPlace.vue') },
        { path: 'bench', name: 'bench', component: BenchPlace },
      ],
    },
    {
      path: '/begin',
      name: 'begin',
      component: () => import('./shed/BeginHere.vue'),
      meta: { place: 'shed' },
    },
    {
      path: '/buying',
      name: 'buying',
      component: () => import('./shed/TheBuying.vue'),
      meta: { place: 'shed' },
    },
    {
      path: '/let-in',
      name: 'let-in',
      component: () => import('./door/LetIn.vue'),
      meta: { place: 'let-in' },
    },
    { path: '/:rest(.*)*', redirect: '/' },
  ],
})

/** A page is called by its place; a build puts its name before it. */
export function titled(place: string, build?: string) {
  const title = place.charAt(0).toUpperCase() + place.slice(1)
  document.title = `${build ? `${build}, ` : ''}${title} · Oaken Scale`
}
router.afterEach((to) => titled(String(to.name ?? 'Shed')))
