import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { renewed } from '../shared/renewed'
import { inject, provide, watch, type InjectionKey } from 'vue'
import { answered, api, type DrawerThing, type NewThing } from '../api/client'
import { whileUnderWay } from '../shared/underWay'
import { useBuild } from '../shared/useBuild'
import { useWords } from '../shared/useWords'

export const THINGS: { value: NewThing['kind']; title: string }[] = [
  { value: 'motor', title: 'motor' },
  { value: 'controller', title: 'speed controller' },
  { value: 'propeller', title: 'propeller' },
  { value: 'pack', title: 'pack' },
  { value: 'servo', title: 'servo' },
  { value: 'receiver', title: 'receiver' },
  { value: 'wiring', title: 'wiring, plugs' },
  { value: 'camera', title: 'camera' },
  { value: 'other', title: 'something else' },
]

function setUp() {
  const { id, build, send } = useBuild()
  const client = useQueryClient()
  const words = useWords()
  const drawer = useQuery({
    queryKey: ['drawer'],
    queryFn: () => answered<DrawerThing[]>(api.GET('/api/v1/drawer')),
    refetchOnMount: 'always',
  })
  const renew = () => renewed(client, ['drawer'])
  watch(
    () => [build.value?.weighings.length, build.value?.parts.length],
    () => void renew(),
  )

  // One act after the other, each made of what the last one left.
  let last: Promise<unknown> = Promise.resolve()
  function tried(request: () => Promise<unknown>): Promise<boolean> {
    const done = last.then(async () => {
      try {
        await request()
        words.hush()
        return true
      } catch (error) {
        words.complain(error)
        return false
      } finally {
        await renew()
      }
    })
    last = done
    return whileUnderWay(done)
  }

  const lay = (thing: NewThing) =>
    tried(() => answered(api.POST('/api/v1/drawer', { body: thing })))
  /** Change what is said of a thing as it lies there when the turn of that comes. */
  const describe = (thing: string, patch: Partial<NewThing>) =>
    tried(() => {
      const now = drawer.data.value?.find((each) => each.thing.id === thing)?.thing
      if (!now) throw new Error('That thing is no longer in the drawer')
      const { id: thing_id, ...said } = now
      return answered(
        api.PUT('/api/v1/drawer/{thing_id}', {
          params: { path: { thing_id } },
          body: { ...said, ...patch },
        }),
      )
    })
  /** Take a thing out for good; one press lays it back. */
  async function takeOut(id: string) {
    const thing = drawer.data.value?.find((each) => each.thing.id === id)?.thing
    const isOut = await tried(() =>
      answered(api.DELETE('/api/v1/drawer/{thing_id}', { params: { path: { thing_id: id } } })),
    )
    if (!thing || !isOut) return
    const { id: was, ...said } = thing
    words.removed(thing.name || was, () => lay(said))
  }

  /** Fit a thing into this build; `move` takes it out of the others. */
  async function fit(thing: string, move: boolean) {
    await send((header) =>
      answered(
        api.POST('/api/v1/builds/{build_id}/things', {
          params: { path: { build_id: id.value }, header },
          body: { thing, move },
        }),
      ),
    )
    void renew()
  }

  return { drawer, lay, describe, takeOut, fit }
}

type Drawer = ReturnType<typeof setUp>
const DRAWER: InjectionKey<Drawer> = Symbol('drawer')

/** The electronics drawer that all builds share. */
export function openDrawer(): Drawer {
  const drawer = setUp()
  provide(DRAWER, drawer)
  return drawer
}

/** The drawer that the place has opened. */
export function useDrawer(): Drawer {
  const drawer = inject(DRAWER)
  if (!drawer) throw new Error('no drawer is open here')
  return drawer
}
