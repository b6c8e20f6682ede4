<script setup lang="ts">
/** Bill, dates, own measurements, what the pack claims and warns of. */
import { computed } from 'vue'
import type { LotDocument } from '@/api/types'
import { gramsOf, weightUnit } from '@/domain/format'
import { useSession } from '@/stores/session'
import { t } from '@/messages'

const props = defineProps<{ pack: LotDocument; readonly: boolean; isNew: boolean; onHand: string }>()
const emit = defineEmits<{ set: [change: Partial<LotDocument>]; onHand: [text: string] }>()
const session = useSession()
const currency = computed(() => session.kitchen?.currency ?? '')

function number(field: 'price' | 'pack_g' | 'capacity' | 'usable', text: string, factor = 1): void {
  const plain = text.trim().replace(',', '.')
  emit('set', { [field]: plain === '' || !Number.isFinite(Number(plain)) ? (field === 'usable' ? 1 : null) : Number(plain) * factor })
}

function measure(key: string, text: string): void {
  const plain = text.trim().replace(',', '.')
  const rest = Object.entries(props.pack.measures ?? {}).filter(([held]) => held !== key)
  const typed: [string, number][] = plain && Number.isFinite(Number(plain)) ? [[key, Number(plain) * grams.value]] : []
  emit('set', { measures: Object.fromEntries([...rest, ...typed]) })
}

function toggle(field: 'certificates' | 'contains' | 'may_contain', value: string): void {
  const held = props.pack[field] ?? []
  emit('set', { [field]: held.includes(value) ? held.filter((v) => v !== value) : [...held, value] })
}
const shown = (value: number | null | undefined): string =>
  value == null ? '' : String(Number(value.toFixed(session.units === 'us' ? 2 : 4)))
/** Grams of one of the kitchen's unit of weight. */
const grams = computed(() => gramsOf(1, session.units))
const inUnit = (value: number | null | undefined): number | null => (value == null ? null : value / grams.value)
const lists = [
  ['contains', t('pantry-pack-more-also-contains')],
  ['may_contain', t('pantry-pack-more-may-contain-traces-of')],
] as const
</script>

<template>
  <section class="more" :aria-label="$t('pantry-pack-more-price-and-measurements')">
    <div class="grid">
      <label class="note"
        >{{ $t('pantry-pack-more-price-of-a-pack') }}
        <span class="with"
          ><v-text-field
            class="field"
            inputmode="decimal"
            :model-value="shown(pack.price)"
            :readonly="readonly"
            @change="number('price', ($event.target as HTMLInputElement).value)"
          />
          {{ currency }}</span
        ></label
      >
      <label class="note"
        >{{ $t('pantry-pack-more-net-weight') }}
        <span class="with"
          ><v-text-field
            class="field"
            inputmode="decimal"
            :model-value="shown(inUnit(pack.pack_g))"
            :readonly="readonly"
            @change="number('pack_g', ($event.target as HTMLInputElement).value, grams)"
          />
          {{ weightUnit(session.units) }}</span
        ></label
      >
      <label v-if="isNew" class="note"
        >{{ $t('pantry-pack-more-on-hand') }}
        <span class="with"
          ><v-text-field
            class="field"
            inputmode="decimal"
            :model-value="onHand"
            :placeholder="shown(inUnit(pack.pack_g))"
            @change="emit('onHand', ($event.target as HTMLInputElement).value)"
          />
          {{ weightUnit(session.units) }}</span
        ></label
      >
      <label class="note"
        >{{ $t('pantry-pack-more-use-by') }}
        <v-text-field
          class="field"
          type="date"
          :model-value="pack.use_by ?? ''"
          :readonly="readonly"
          @change="emit('set', { use_by: ($event.target as HTMLInputElement).value || null })"
      /></label>
      <label class="note"
        >{{ $t('pantry-pack-more-bought-on') }}
        <v-text-field
          class="field"
          type="date"
          :model-value="pack.bought_on ?? ''"
          :readonly="readonly"
          @change="emit('set', { bought_on: ($event.target as HTMLInputElement).value || null })"
      /></label>
      <label class="note"
        >{{ $t('pantry-pack-more-usable') }}
        <span class="with"
          ><v-text-field
            class="field"
            inputmode="decimal"
            :model-value="shown((pack.usable ?? 1) * 100)"
            :readonly="readonly"
            @change="number('usable', ($event.target as HTMLInputElement).value, 0.01)"
          />
          %</span
        ></label
      >
    </div>
    <h3>{{ $t('pantry-pack-more-your-own-measurements') }}</h3>
    <div class="grid">
      <label class="note"
        >{{ $t('pantry-pack-more-a-cup-weighs') }}
        <span class="with"
          ><v-text-field
            class="field"
            inputmode="decimal"
            :model-value="shown(inUnit(pack.measures?.cup))"
            :readonly="readonly"
            @change="measure('cup', ($event.target as HTMLInputElement).value)"
          />
          {{ weightUnit(session.units) }}</span
        ></label
      >
      <label class="note"
        >{{ $t('pantry-pack-more-a-tablespoon') }}
        <span class="with"
          ><v-text-field
            class="field"
            inputmode="decimal"
            :model-value="shown(inUnit(pack.measures?.tbsp))"
            :readonly="readonly"
            @change="measure('tbsp', ($event.target as HTMLInputElement).value)"
          />
          {{ weightUnit(session.units) }}</span
        ></label
      >
      <label class="note"
        >{{ $t('pantry-pack-more-water-absorption') }}
        <span class="with"
          ><v-text-field
            class="field"
            inputmode="decimal"
            :model-value="shown(pack.capacity)"
            :readonly="readonly"
            @change="number('capacity', ($event.target as HTMLInputElement).value)"
          />
          g/g</span
        ></label
      >
      <label class="note"
        >{{ $t('pantry-pack-more-colour') }}
        <v-text-field
          class="field"
          :model-value="pack.colour"
          maxlength="60"
          :placeholder="$t('pantry-pack-more-blond-dark')"
          :readonly="readonly"
          @change="emit('set', { colour: ($event.target as HTMLInputElement).value })"
      /></label>
    </div>
    <h3>{{ $t('pantry-pack-more-certified-on-the-pack') }}</h3>
    <div class="chips">
      <v-btn
        v-for="c in session.words?.claims"
        :key="c.id"
        class="chip"
        :class="{ on: pack.certificates?.includes(c.id) }"
        :aria-pressed="pack.certificates?.includes(c.id)"
        :disabled="readonly"
        :title="c.basis"
        @click="toggle('certificates', c.id)"
      >
        {{ c.name.toLowerCase() }}
      </v-btn>
    </div>
    <details v-for="[field, word] in lists" :key="field" :open="(pack[field]?.length ?? 0) > 0">
      <summary>
        {{ word }}<span class="note"> {{ pack[field]?.join(', ') || $t('pantry-pack-more-nothing') }}</span>
      </summary>
      <div class="chips">
        <v-btn
          v-for="a in session.words?.allergens"
          :key="a.flag"
          class="chip"
          :class="{ on: pack[field]?.includes(a.flag) }"
          :aria-pressed="pack[field]?.includes(a.flag)"
          :disabled="readonly"
          @click="toggle(field, a.flag)"
        >
          {{ a.name }}
        </v-btn>
        <template v-if="field === 'contains'">
          <v-btn
            v-for="[flag, name] in [
              ['anticaking', 'anti-caking starch'],
              ['nightshade', 'potato starch'],
              ['sugar', 'sugar'],
            ] as const"
            :key="flag"
            class="chip"
            :class="{ on: pack.contains?.includes(flag) }"
            :aria-pressed="pack.contains?.includes(flag)"
            :disabled="readonly"
            @click="toggle('contains', flag)"
          >
            {{ name }}
          </v-btn>
        </template>
      </div>
    </details>
    <label class="note"
      >{{ $t('pantry-pack-more-ingredient-list-on-the-pack') }}
      <v-textarea
        class="field"
        rows="2"
        maxlength="2000"
        :model-value="pack.statement"
        :readonly="readonly"
        @change="emit('set', { statement: ($event.target as HTMLTextAreaElement).value })"
      />
    </label>
    <label class="note"
      >{{ $t('pantry-pack-more-notes') }}
      <v-textarea
        class="field"
        rows="2"
        maxlength="2000"
        :model-value="pack.notes"
        :readonly="readonly"
        @change="emit('set', { notes: ($event.target as HTMLTextAreaElement).value })"
      />
    </label>
  </section>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 8px 14px;
}

h3 {
  margin: 14px 0 4px;
  font-size: 14px;
}

.with {
  display: flex;
  align-items: center;
  gap: 5px;
}

.field {
  color: var(--ink);
  font-size: 14px;
}

.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  margin: 4px 0;
}

.chip {
  padding: 2px 9px;
  border: 1px solid var(--rule-strong);
  border-radius: 6px;
  background: var(--panel);
  font-size: 12px;
}

.chip.on {
  border-color: var(--in);
  background: var(--in-soft);
  box-shadow: inset 0 0 0 1px var(--in);
  font-weight: 650;
}

details {
  margin-top: 8px;
}

summary .note {
  margin-left: 6px;
}

summary {
  font-size: 13px;
  cursor: pointer;
}

label {
  display: block;
}

.more > label {
  margin-top: 10px;
}
</style>
