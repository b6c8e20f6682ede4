<script setup lang="ts">
import { mdiChefHat } from '@mdi/js'
import { useRouter } from 'vue-router'
import KitchenEaters from './KitchenEaters.vue'
import { signOut } from '@/api/account'
import { api, settled } from '@/api/client'
import type { KitchenSettings } from '@/api/types'
import { useBench } from '@/stores/bench'
import { useSession } from '@/stores/session'
import { useToasts } from '@/stores/toasts'
import { useCommands } from '@/composables/useCommands'
import { useDo } from '@/composables/useDo'
import { t } from '@/messages'

const session = useSession()
const bench = useBench()
const toasts = useToasts()
const router = useRouter()
const commands = useCommands()

const choices = (setting: string): readonly { id: string; name: string }[] => session.words?.kitchen_choices[setting] ?? []
const choosing = useDo((settings: KitchenSettings) => session.change(settings), {
  then: () => {
    bench.askAgain()
  },
})
const devicesOf = useDo(
  (devices: string, at) => settled(api.PUT('/api/kitchens/{kitchen_id}/devices', { params: { path: at }, body: { devices } })),
  {
    then: (kitchen) => {
      session.changed(kitchen)
    },
  },
)
const choose = (settings: KitchenSettings): void => {
  void choosing.run(settings)
}

async function enter(id: number): Promise<void> {
  session.enter(id)
  await router.push('/formula')
}

async function leave(): Promise<void> {
  await bench.flush()
  const reply = await signOut()
  if (!reply.ok) {
    toasts.show(reply.errors[0]?.message ?? t('frame-kitchen-menu-you-could-not-be-signed-out'), { tone: 'act' })
    return
  }
  session.forget()
  // What was kept of this person's runs is not the next one's.
  if ('caches' in window) await caches.delete('bench')
  await (await import('@/composables/useOutbox')).forgetRuns().catch(() => undefined)
  location.assign('/sign-in')
}
</script>

<template>
  <v-menu :close-on-content-click="false" location="bottom end">
    <template #activator="{ props: menu }">
      <v-btn v-bind="menu" class="round" :aria-label="$t('frame-kitchen-menu-kitchen', { name: session.kitchen?.name })"
        ><v-icon :icon="mdiChefHat" size="20"
      /></v-btn>
    </template>
    <div v-if="session.kitchen" class="sheet popover">
      <p class="figure kitchen">{{ session.kitchen.name }}</p>
      <p class="note">{{ session.me?.email }} · {{ session.kitchen.role }}</p>
      <v-btn v-for="k in session.me?.kitchens.filter((k) => k.id !== session.kitchen?.id)" :key="k.id" class="row" @click="enter(k.id)"
        >{{ $t('frame-kitchen-menu-go-to', { name: k.name }) }}
      </v-btn>
      <v-radio-group
        class="choices"
        :label="$t('frame-kitchen-menu-net-carbs-method')"
        :model-value="session.kitchen.convention"
        :disabled="!session.may('kitchen.settings')"
        @update:model-value="choose({ convention: $event ?? undefined })"
      >
        <v-radio v-for="c in session.words?.conventions" :key="c.id" :value="c.id">
          <template #label>
            <span
              ><b>{{ c.id }}</b
              >{{ ' ' }}<span class="note">{{ c.rule }}</span></span
            >
          </template>
        </v-radio>
      </v-radio-group>
      <div class="selects">
        <label
          >{{ $t('frame-kitchen-menu-other-sugar-alcohols') }}
          <v-select
            class="field"
            :model-value="session.kitchen.polyol_rule"
            :disabled="!session.may('kitchen.settings')"
            @update:model-value="choose({ polyol_rule: $event })"
            :items="[...(choices('polyol_rule') ?? []).map((c) => ({ value: c.id, title: c.name }))]"
        /></label>
        <label
          >{{ $t('frame-kitchen-menu-cups-and-spoons') }}
          <v-select
            class="field"
            :model-value="session.kitchen.spoons"
            :disabled="!session.may('kitchen.settings')"
            @update:model-value="choose({ spoons: $event })"
            :items="[...(choices('spoons') ?? []).map((c) => ({ value: c.id, title: c.name }))]"
        /></label>
        <label
          >{{ $t('frame-kitchen-menu-egg-sizes') }}
          <v-select
            class="field"
            :model-value="session.kitchen.egg_scheme"
            :disabled="!session.may('kitchen.settings')"
            @update:model-value="choose({ egg_scheme: $event })"
            :items="[...(choices('egg_scheme') ?? []).map((c) => ({ value: c.id, title: c.name }))]"
        /></label>
        <label
          >{{ $t('frame-kitchen-menu-currency-of-prices') }}
          <v-text-field
            class="field"
            :model-value="session.kitchen.currency"
            maxlength="3"
            :readonly="!session.may('kitchen.settings')"
            @change="choose({ currency: ($event.target as HTMLInputElement).value.toUpperCase() })"
        /></label>
        <label
          >{{ $t('frame-kitchen-menu-scale-and-thermometers') }}
          <v-select
            class="field"
            :model-value="session.kitchen.devices"
            :disabled="!session.may('kitchen.settings')"
            :items="[...choices('devices').map((c) => ({ value: c.id, title: c.name }))]"
            @update:model-value="devicesOf.run($event ?? '')"
        /></label>
      </div>
      <p v-if="devicesOf.trouble.value" role="alert" class="act">{{ devicesOf.trouble.value }}</p>
      <fieldset :disabled="!session.may('kitchen.settings')">
        <legend>{{ $t('frame-kitchen-menu-strict-rules') }}</legend>
        <v-checkbox
          :model-value="session.kitchen.coconut_is_nut"
          :disabled="!session.may('kitchen.settings')"
          @update:model-value="choose({ coconut_is_nut: $event === true })"
        >
          <template #label
            ><span
              >{{ $t('frame-kitchen-menu-nut-free-also-excludes-coconut') }}
              <span class="note">{{ $t('frame-kitchen-menu-as-some-schools-do') }}</span></span
            ></template
          >
        </v-checkbox>
        <v-checkbox
          :model-value="session.kitchen.xanthan_is_grain"
          :disabled="!session.may('kitchen.settings')"
          @update:model-value="choose({ xanthan_is_grain: $event === true })"
        >
          <template #label
            ><span
              >{{ $t('frame-kitchen-menu-grain-free-also-excludes-xanthan-gum') }}
              <span class="note">{{ $t('frame-kitchen-menu-xanthan-gum-is-often-grown-on') }}</span></span
            ></template
          >
        </v-checkbox>
        <v-checkbox
          :model-value="session.kitchen.low_salt"
          :disabled="!session.may('kitchen.settings')"
          @update:model-value="choose({ low_salt: $event === true })"
        >
          <template #label
            ><span
              >{{ $t('frame-kitchen-menu-a-low-salt-kitchen') }}
              <span class="note">{{ $t('frame-kitchen-menu-no-warnings-about-low-salt') }}</span></span
            ></template
          >
        </v-checkbox>
      </fieldset>
      <KitchenEaters :key="`eaters ${session.kitchen.id}`" />
      <p class="note law">{{ $t('frame-kitchen-menu-net-carbs-has-no-legal-definition') }}</p>
      <router-link class="row" to="/kitchen">{{
        $t('frame-kitchen-menu-members', { may: session.may('history.read') ? ' ' + $t('frame-kitchen-menu-and-history') : '' })
      }}</router-link>
      <router-link class="row" to="/account">{{ $t('frame-kitchen-menu-your-account') }}</router-link>
      <v-btn class="row" @click="session.toggleTheme()">
        {{ session.theme === 'dark' ? $t('frame-kitchen-menu-light-theme') : $t('frame-kitchen-menu-dark-theme-for-early-mornings') }}
      </v-btn>
      <v-btn class="row" @click="commands.keys.value = true">{{ $t('frame-kitchen-menu-keys') }} <kbd>?</kbd></v-btn>
      <v-btn class="row" @click="leave">{{ $t('frame-kitchen-menu-sign-out') }}</v-btn>
    </div>
  </v-menu>
</template>

<style scoped>
.round {
  flex: none;
  display: grid;
  place-items: center;
  width: 34px;
  height: 34px;
  border: 1px solid var(--rule-strong);
  border-radius: 50%;
  background: var(--panel);
}

.sheet {
  width: 340px;
  max-height: calc(100vh - 70px);
  overflow-y: auto;
}

.kitchen {
  margin: 0;
  font-size: 17px;
}

p {
  margin: 0;
}

fieldset {
  margin: 14px 0 10px;
  padding: 0;
  border: 0;
}

legend,
.selects label {
  font-size: 12px;
  color: var(--ink-2);
}

.choice {
  display: flex;
  gap: 8px;
  padding: 4px 0;
  line-height: 1.3;
}

.choice input {
  accent-color: var(--act);
}

.selects {
  display: grid;
  gap: 8px;
}

.selects .field {
  color: var(--ink);
  font-size: 14px;
}

.law {
  margin: 12px 0 6px;
}

.row {
  display: flex;
  justify-content: space-between;
  width: 100%;
  padding: 8px 0;
  border-top: 1px solid var(--rule);
  text-align: left;
}

a.row {
  color: inherit;
  text-decoration: none;
}

.row:hover {
  color: var(--act);
}
</style>
