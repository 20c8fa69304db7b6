<script setup lang="ts">
import { computed, reactive } from 'vue'
import { once } from '../shared/once'
import QuantityCell from '../shared/QuantityCell.vue'
import { sent } from '../shared/sent'
import { fixed } from '../shared/units'
import { useBuying } from './useBuying'
import WantedRow from './WantedRow.vue'

const { query, list, shops, wrong, change, add, bring, strike } = useBuying()

const fresh = reactive({ name: '', count: 1 })
const put = once(async () => {
  if (!fresh.name.trim()) return
  const anew = sent(fresh)
  if (await add(fresh.name.trim(), fresh.count)) anew({ name: '', count: 1 })
})

const days = (value: number | null) =>
  value === null ? '' : `, there in ${fixed(value, 0)} ${value === 1 ? 'day' : 'days'}`
const called = (shop: string) => shop || 'no shop said'
const worth = computed(() =>
  (list.value?.buying.worth ?? []).map(({ name: what, shop, other, count: many }) =>
    many === null
      ? `${what}: no number makes ${called(shop)} worth its freight against ${called(other)}.`
      : `${what}: from ${many} on, ${called(shop)} is worth its freight against ${called(other)}.`,
  ),
)
</script>

<template>
  <div class="buying">
    <header>
      <router-link class="plainly under" :to="{ name: 'shed' }">Shed</router-link>
      <h1>To buy</h1>
    </header>
    <p class="faint">
      What the planes on the shelf want beyond what is at hand, and what flies with none of them:
      tools, a charger, a spare. With no plane begun it is a list like any other.
    </p>
    <p v-if="query.isError.value" class="wrong">The list does not come. Try again in a moment.</p>
    <p v-else-if="!list" class="faint" aria-busy="true">Fetching the list …</p>
    <div v-else class="two">
      <section aria-label="What is wanted">
        <form class="next" @submit.prevent="put">
          <QuantityCell
            :value="fresh.count"
            kind="pieces"
            :least="1"
            :most="10000"
            label="How many of the next"
            :on-kept="(value) => (fresh.count = Math.round(value ?? 1))"
          />
          <v-text-field v-model="fresh.name" label="something to buy" maxlength="80" />
          <v-btn type="submit" :disabled="!fresh.name.trim()">Put it on the list</v-btn>
        </form>
        <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
        <ul>
          <WantedRow
            v-for="each in list.wanted"
            :key="each.id"
            :wanted="each"
            :on-change="(made) => change(each, made)"
            @strike="strike(each)"
          />
        </ul>
        <template v-if="list.needed.length">
          <h2>For the planes on the shelf</h2>
          <ul aria-label="For the planes on the shelf">
            <li v-for="each in list.needed" :key="each.id" class="need">
              <span class="figure">{{ each.count }} ×</span> {{ each.name }}
              <span class="faint small">{{
                each.offers.map((o) => `${called(o.shop)}, ${fixed(o.price, 2)} each`).join('; ') ||
                'no price on the Rack'
              }}</span>
            </li>
          </ul>
        </template>
        <p v-if="!list.wanted.length && !list.needed.length" class="faint">
          Nothing is wanted. Type something above, or give a plane its parts.
        </p>
      </section>
      <section aria-label="Orders">
        <h2>
          Where it costs least <span class="figure">{{ fixed(list.buying.total, 2) }}</span>
        </h2>
        <div v-for="order in list.buying.orders" :key="order.shop" class="order">
          <h3>
            {{ called(order.shop) }}<span class="faint small">{{ days(order.lead_days) }}</span>
          </h3>
          <dl>
            <template v-for="line in order.lines" :key="line.wanted">
              <dt>{{ line.count }} × {{ line.name }}</dt>
              <dd class="figure">{{ fixed(line.cost, 2) }}</dd>
            </template>
            <dt class="faint">brought</dt>
            <dd class="figure">{{ fixed(order.freight, 2) }}</dd>
          </dl>
        </div>
        <p v-if="list.buying.unpriced.length" class="small faint">
          Without a price, so in no order: {{ list.buying.unpriced.join(', ') }}.
        </p>
        <p v-for="words in worth" :key="words" class="small asked">{{ words }}</p>
        <template v-if="shops.length">
          <h2>What it costs to have it brought</h2>
          <p v-for="shop in shops" :key="shop.shop" class="freight small">
            <strong>{{ called(shop.shop) }}</strong>
            <QuantityCell
              :value="shop.cost"
              kind="number"
              :least="0"
              :label="`Freight of ${called(shop.shop)}`"
              @kept="$event !== null && bring(shop.shop, { cost: $event })"
            />
            <span class="faint">free from</span>
            <QuantityCell
              :value="shop.free_from"
              kind="number"
              optional
              :least="0"
              :label="`Freight of ${called(shop.shop)} is free from`"
              @kept="bring(shop.shop, { free_from: $event })"
            />
          </p>
        </template>
      </section>
    </div>
  </div>
</template>

<style scoped>
.buying {
  padding: 20px 28px 60px;
  display: grid;
  gap: 12px;
}

header {
  display: flex;
  align-items: baseline;
  gap: 16px;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 40px;
}

section {
  display: grid;
  gap: 12px;
  align-content: start;
}

.next {
  display: grid;
  grid-template-columns: 64px minmax(0, 1fr) max-content;
  gap: 10px;
  align-items: center;
}

.next :deep(.cell) {
  width: 100%;
}

.need {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
  border-bottom: 1px solid var(--line);
  padding: 8px 0;
}

.order {
  border-left: 3px solid var(--oak);
  padding-left: 12px;
}

dl {
  display: grid;
  grid-template-columns: minmax(0, 1fr) max-content;
  gap: 4px 16px;
  margin: 6px 0 0;
}

.freight {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}

.freight :deep(.cell) {
  width: 76px;
}

@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }

  .buying {
    padding: 14px 14px 80px;
  }

  .next {
    grid-template-columns: 64px minmax(0, 1fr);
  }
}
</style>
