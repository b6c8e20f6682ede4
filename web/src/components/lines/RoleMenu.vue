<script setup lang="ts">
/** A line's name; pressed, it offers the pack it is taken from, role, treatment and note in a small sheet. */
import { computed, ref, watch } from 'vue'
import type { LineDocument } from '@/api/types'
import RoleSwatch from '@/components/core/RoleSwatch.vue'
import { usePanels } from '@/composables/usePanels'
import { useSettling } from '@/composables/useSettling'
import { withLine } from '@/domain/edits'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import PackChoice from './PackChoice.vue'

const props = defineProps<{ line: LineDocument; role: string; name: string; usual: string }>()
const bench = useBench()
const session = useSession()
const panels = usePanels()
const settling = useSettling()
const open = ref(false)
const treatment = ref('')
const note = ref('')
watch(
  () => props.line,
  (line) => {
    treatment.value = line.treatment ?? ''
    note.value = line.note ?? ''
  },
  { immediate: true },
)

function look(): void {
  open.value = false
  bench.selected = props.line.id
  panels.open.value = 'what-if'
}

/** Lines that do the same work: of several cheeses or flours the mix can change and the whole stay. */
const alike = computed(() => bench.lines.filter((l) => (l.role || bench.reading(l)?.role) === props.role))

function blend(): void {
  open.value = false
  bench.selected = props.line.id
  panels.open.value = 'mix'
}

function replace(): void {
  open.value = false
  settling.withoutLine(props.line.id)
}

function set(change: Partial<LineDocument>): void {
  bench.edit((doc) => withLine(doc, props.line.id, change))
}
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false" location="bottom start">
    <template #activator="{ props: menu }">
      <v-btn v-bind="menu" class="name">{{ name }}</v-btn>
    </template>
    <div class="sheet popover">
      <p class="figure">{{ name }}</p>
      <p class="note">{{ usual }}</p>
      <p v-if="bench.mayEdit" class="todo">
        <v-btn class="quiet-button tiny-button" @click="look">{{ $t('frame-role-menu-show-what-if-more-or-less') }}</v-btn>
        <v-btn class="quiet-button tiny-button" @click="replace">{{ $t('frame-role-menu-replace-ingredient') }}</v-btn>
        <v-btn v-if="alike.length > 1" class="quiet-button tiny-button" @click="blend">{{
          $t('frame-role-menu-blend-the-ingredients', { role })
        }}</v-btn>
      </p>
      <PackChoice v-if="open" :line="line" @pick="(lot) => set({ lot })" />
      <div class="roles" role="radiogroup" :aria-label="$t('frame-role-menu-role')">
        <v-btn
          v-for="r in session.words?.roles"
          :key="r.id"
          role="radio"
          :aria-checked="r.id === role"
          class="role"
          :class="{ on: r.id === role }"
          :disabled="!bench.mayEdit"
          @click="set({ role: r.id })"
        >
          <RoleSwatch :role="r.id" /> {{ r.name.toLowerCase() }} <span class="note">{{ r.code }}</span>
        </v-btn>
      </div>
      <label class="note"
        >{{ $t('frame-role-menu-treatment') }}
        <v-text-field
          v-model="treatment"
          class="field"
          maxlength="120"
          :placeholder="$t('frame-role-menu-for-example-riced-and-squeezed')"
          :readonly="!bench.mayEdit"
          @change="set({ treatment })"
      /></label>
      <label class="note"
        >{{ $t('frame-role-menu-note') }}
        <v-text-field
          v-model="note"
          class="field"
          maxlength="500"
          :placeholder="$t('frame-role-menu-softened')"
          :readonly="!bench.mayEdit"
          @change="set({ note })"
      /></label>
    </div>
  </v-menu>
</template>

<style scoped>
.name {
  max-width: 100%;
  overflow: hidden;
  font-weight: 650;
  font-size: 15px;
  text-overflow: ellipsis;
  white-space: nowrap;
  flex: none;
}

.name:hover {
  text-decoration: underline;
  text-decoration-color: var(--rule-strong);
  text-underline-offset: 3px;
}

.sheet {
  width: 380px;
}

p {
  margin: 0 0 4px;
}

.todo {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin: 6px 0 8px;
}

.roles {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 2px;
  margin: 10px 0;
}

.role {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 4px;
  border-radius: 7px;
  font-size: 13px;
}

.role.on {
  background: var(--select);
  font-weight: 650;
}

label {
  display: block;
  margin-top: 8px;
}

.field {
  color: var(--ink);
}
</style>
