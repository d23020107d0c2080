import { text } from '../../i18n'
import { computed, ref, shallowRef, watch } from 'vue'
import { z } from 'zod'
import { region as regionSchema, type Scheme } from '../../../contract/scheme'
import { vertexNormals } from '../../../core/mesh/measure'
import type { Mesh } from '../../../core/mesh/mesh'
import { brushLabels, regionAreas } from '../../../core/paint/surface/regions'
import { api, fetchBytes } from '../../api'
import { messageOf } from '../../messageOf'
import { asFloats } from '../../composables/paintedScheme'
import { usePaintWork, useSlowPaintWork } from '../../composables/usePaintWork'
import { useDerivations } from '../../stores/derivations'
import { usePiece } from '../../stores/piece'
import { useScheme } from '../../stores/scheme'
import { loadMesh } from '../../viewport/meshCache'
import type { Picked } from '../../viewport/scene'
import { useViewport } from '../../viewport/useViewport'

/** Steps that can be taken back, and ms within which presses are one stroke of the brush. */
const MAX_UNDO = 20,
  STROKE = 600

interface Before {
  labels: Uint8Array
  /** where the change also made or ended a region: the regions and coats of before */
  scheme: Pick<Scheme, 'regions' | 'coats' | 'variants' | 'effects'> | null
}

/**
 * Which region each vertex of the part on the table belongs to, and what a hand does to that.
 *
 * @param changed is told of every change
 */
export function useRegions(changed: () => void) {
  const store = usePiece(),
    book = useScheme(),
    viewport = useViewport(),
    derivations = useDerivations(),
    work = usePaintWork(),
    slow = useSlowPaintWork()
  const current = ref(0),
    fault = ref('')
  /** share of the skin that is newer than its regions */
  const fresh = ref(0)
  const labels = shallowRef<Uint8Array>(new Uint8Array(0))
  const undone = shallowRef<Before[]>([])
  let normals = new Float32Array(0),
    strokeAt = 0
  /** labels that are not kept yet, with what they lie on: the part on the table may be another by then */
  let unkept: { partId: string; hash: string; chain: string[]; mesh: Mesh; labels: Uint8Array } | null = null
  const region = computed(() => book.scheme?.regions.find((r) => r.id === current.value) ?? null)
  const ready = computed(
    () => viewport.shown !== null && labels.value.length === viewport.shown.mesh.positions.length / 3,
  )

  /** Fits the stored labels to the copy on the table: as they are, transferred over from another copy, or all one region. */
  async function apply(): Promise<void> {
    const { shown } = viewport,
      s = book.scheme
    if (!shown || !s) return
    const n = shown.mesh.positions.length / 3
    let next = new Uint8Array(n).fill(s.regions[0]!.id),
      newer = 0
    // A part that came of a cut has no regions of its own yet: those of the body that it was cut from.
    const kin = (store.piece?.partList ?? []).filter((x) => x.sculptMesh === store.part?.sculptMesh).map((x) => x.id)
    const own = s.maps.find((m) => m.partId === store.part?.id)
    const map = own ?? s.maps.find((m) => kin.includes(m.partId))
    let said = ''
    try {
      if (map) {
        const stored = await fetchBytes(map.labels)
        if (map.meshHash === shown.hash && stored.length === n) next = new Uint8Array(stored)
        else {
          // What is on the table has no regions until they are brought over: nothing is brushed onto it meanwhile.
          labels.value = new Uint8Array(0)
          const transferred = await transferLabels(map, stored, shown)
          next = new Uint8Array(transferred.labels)
          newer = transferred.fresh
        }
      }
    } catch (e) {
      next = new Uint8Array(0)
      said = text('scheme.useRegions.itsRegionsCouldNot', { value: messageOf(e) })
    }
    // Another part was laid on the table meanwhile.
    if (viewport.shown !== shown) return
    normals = vertexNormals(shown.mesh) as Float32Array<ArrayBuffer>
    fault.value = said
    fresh.value = newer
    undone.value = []
    labels.value = next
    // Painted before edges were measured: measured now, and kept with the next change.
    if (own && own.borders.length === 0 && s.regions.length > 1 && next.length === n)
      own.borders = await slow.borders(shown.mesh, next.slice())
  }
  /** Both copies as they were on the sculpt, where that is known; else as they stand. */
  async function transferLabels(
    map: Scheme['maps'][number],
    stored: Uint8Array,
    shown: { hash: string; of: string; mesh: Mesh },
  ) {
    const chain = store.chainOf(shown.of),
      from = await loadMesh(map.meshHash)
    const known = chain.length > 0 && map.chain.length > 0 && chain.at(-1) === map.chain.at(-1)
    if (!known || chain.length + map.chain.length === 2) return work.transferLabels(from, stored, shown.mesh)
    const resting = async (mesh: Mesh, hash: string, others: string[]): Promise<Mesh> => {
      if (others.length < 2) return mesh
      const found = await derivations.settled(hash, { kind: 'restingPlaces', others })
      return { positions: asFloats(await fetchBytes(found.blobs.map!)).slice(), triangles: mesh.triangles }
    }
    const [a, b] = await Promise.all([
      resting(from, map.meshHash, [...map.chain]),
      resting(shown.mesh, shown.hash, chain),
    ])
    return work.transferLabels(a, stored, b)
  }
  watch(
    () => book.scheme === null,
    (gone) => {
      if (!gone) current.value = book.scheme!.regions[0]!.id
    },
    { immediate: true },
  )

  function remember(withScheme: boolean): void {
    const s = book.scheme!
    const kept = withScheme
      ? (JSON.parse(
          JSON.stringify({ regions: s.regions, coats: s.coats, variants: s.variants, effects: s.effects }),
        ) as Before['scheme'])
      : null
    undone.value = [...undone.value.slice(1 - MAX_UNDO), { labels: labels.value.slice(), scheme: kept }]
  }
  function put(next: Uint8Array): void {
    labels.value = next
    const { shown } = viewport
    if (shown && store.part)
      unkept = {
        partId: store.part.id,
        hash: shown.hash,
        // Of what is shown: the list may have gone on already.
        chain: store.chainOf(shown.of),
        mesh: shown.mesh,
        labels: next,
      }
    changed()
  }
  function relabel(next: Uint8Array): void {
    remember(false)
    put(next)
  }
  function takeBack(): void {
    const last = undone.value.at(-1)
    if (!last) return
    undone.value = undone.value.slice(0, -1)
    if (last.scheme) {
      Object.assign(book.scheme!, last.scheme)
      if (!region.value) current.value = book.scheme!.regions[0]!.id
    }
    put(last.labels)
  }
  function brush(p: Picked, radius: number): void {
    const { shown } = viewport
    if (!shown || !region.value || !ready.value) return
    const now = performance.now()
    if (now - strokeAt > STROKE) remember(false)
    strokeAt = now
    // A copy: what was made of the labels before, such as masks, must see that they are others.
    const next = labels.value.slice()
    if (brushLabels(shown.mesh, normals, next, p.point, p.normal, radius, region.value.id) > 0) put(next)
  }
  /** Gives marked vertices to the region; one stroke is one thing to take back. */
  function take(marked: Uint8Array): void {
    if (!region.value || !ready.value) return
    const now = performance.now()
    if (now - strokeAt > STROKE) remember(false)
    strokeAt = now
    const id = region.value.id
    if (labels.value.some((l, v) => marked[v] === 1 && l !== id))
      put(labels.value.map((l, v) => (marked[v] === 1 ? id : l)))
  }
  /** Marked vertices become a region of their own, over whatever they were. */
  function addOf(name: string, marked: Uint8Array): void {
    if (!ready.value) return
    if (!marked.some((m) => m === 1)) {
      fault.value = text('scheme.useRegions.itIsSmallerThan')
      return
    }
    fault.value = ''
    remember(true)
    const id = freeId()
    book.scheme!.regions.push(regionSchema.parse({ id, name: name.slice(0, 60) }))
    current.value = id
    put(labels.value.map((l, v) => (marked[v] === 1 ? id : l)))
  }
  /** A first parting of the skin that nobody has parted yet; all of it can be taken back. */
  function propose(next: Uint8Array): void {
    const s = book.scheme!
    if (s.coats.length > 0 || s.maps.some((m) => m.partId !== store.part?.id)) {
      fault.value =
        s.coats.length > 0
          ? text('scheme.useRegions.thereAreCoatsAlready')
          : text('scheme.useRegions.thereAreRegionsOn')
      return
    }
    fault.value = ''
    remember(true)
    const count = Math.max(...next) + 1
    s.regions = Array.from({ length: count }, (_, id) =>
      regionSchema.parse({ id, name: text('scheme.useRegions.region', { id: id + 1 }) }),
    )
    current.value = 0
    put(next)
  }
  function fill(): void {
    if (ready.value) relabel(new Uint8Array(labels.value.length).fill(current.value))
  }
  const freeId = (): number => Math.max(-1, ...book.scheme!.regions.map((r) => r.id)) + 1
  function add(): void {
    const id = freeId()
    book.scheme!.regions.push(regionSchema.parse({ id, name: text('scheme.useRegions.region', { id: id + 1 }) }))
    current.value = id
    changed()
  }
  /** What of the region is beyond a plane becomes a region of its own, painted like it until it is given other coats. */
  async function splitAt(
    point: readonly [number, number, number],
    normal: readonly [number, number, number],
  ): Promise<void> {
    const from = region.value!,
      into = freeId()
    const plane = { point: [...point] as const, normal: [...normal] as const }
    const r = await work.split(viewport.shown!.mesh, labels.value.slice(), from.id, plane, into)
    if (r.changed === 0) {
      fault.value = text('scheme.useRegions.noFaceOfIs', { name: from.name })
      return
    }
    fault.value = ''
    remember(true)
    const s = book.scheme!
    s.regions.push({ ...from, id: into, name: text('scheme.useRegions.secondHalf', { name: from.name }).slice(0, 60) })
    s.coats.push(
      ...s.coats
        .filter((c) => c.regionId === from.id)
        .map((c) => ({ ...c, mix: c.mix.map((m) => ({ ...m })), id: crypto.randomUUID(), regionId: into })),
    )
    put(r.labels)
  }
  /** The region ends: its skin goes to another, and its coats are dropped; all of it can be taken back. */
  function joinTo(to: number): void {
    const s = book.scheme!,
      gone = region.value!
    const elsewhere = s.maps.filter((m) => m.partId !== store.part?.id && (m.areas[gone.id] ?? 0) > 0)
    if (elsewhere.length > 0) {
      fault.value = text('scheme.useRegions.isAlsoOnElsewhere', { name: gone.name, elsewhere: elsewhere.length })
      return
    }
    fault.value = ''
    remember(true)
    const stays = (x: { regionId: number }): boolean => x.regionId !== gone.id
    s.coats = s.coats.filter(stays)
    s.variants = s.variants.filter(stays)
    s.effects = s.effects.filter(stays)
    s.regions = s.regions.filter((r) => r.id !== gone.id)
    current.value = to
    put(labels.value.map((l) => (l === gone.id ? to : l)))
  }
  /** Puts labels that changed into the scheme, with the areas and edges that go with them. */
  async function keep(): Promise<void> {
    const s = book.scheme,
      on = unkept
    if (!s || !on) return
    unkept = null
    const mine = on.labels.slice()
    let hash
    try {
      hash = (await api(z.object({ hash: z.string() }), 'POST', '/blobs', mine.slice())).hash
    } catch (e) {
      // What the server did not take is sent with the next change.
      unkept ??= on
      throw e
    }
    const areas = regionAreas(on.mesh, mine),
      borders = await slow.borders(on.mesh, mine)
    s.maps = [
      ...s.maps.filter((m) => m.partId !== on.partId),
      { partId: on.partId, meshHash: on.hash, labels: hash, chain: on.chain, areas, borders },
    ]
  }
  return {
    current,
    region,
    labels,
    ready,
    fresh,
    fault,
    undoable: computed(() => undone.value.length > 0),
    apply,
    relabel,
    takeBack,
    brush,
    take,
    addOf,
    propose,
    fill,
    add,
    splitAt,
    joinTo,
    keep,
  }
}
