<script setup lang="ts">
import { BButton } from 'bootstrap-vue-next/components/BButton';
import { BFormSelect } from 'bootstrap-vue-next/components/BFormSelect';
import { ref, shallowRef } from 'vue';

import { answer, api, Refused } from '@/api/client';
import type { MaterialCurve } from '@/api/types';
import FitPicture from '@/drawing/FitPicture.vue';
import FileText from '@/parts/FileText.vue';
import { vSay } from '@/said/say';

import type { Material, Shelf } from './shelves';

const { shelf, materials } = defineProps<{ shelf: Shelf; materials: Material[] }>();
const emit = defineEmits<{ save: [material: Material]; close: [] }>();

const HEAD = 'material,thickness_mm,drop_mm,static_stress_kpa,peak_g\n';
const csv = ref(HEAD);
const trouble = ref('');
const curves = shallowRef<MaterialCurve[]>([]);
const onto = ref<Record<string, string>>({});

async function fit(): Promise<void> {
  trouble.value = '';
  try {
    curves.value = await answer(api.POST('/api/v1/curves/fit', { body: { csv: csv.value } }));
  } catch (error) {
    curves.value = [];
    trouble.value = error instanceof Refused ? error.message : 'the curve can’t be fitted just now';
  }
}

/** A creep limit is not in a supplier's curve; the one that is known stays. */
function put({ material: name, fitted }: MaterialCurve): void {
  const material = materials.find(({ id }) => id === onto.value[name]);
  if (!material) return;
  const creep = (material.curve as { creep_kpa?: number } | undefined)?.creep_kpa;
  const curve = creep === undefined ? { ...fitted.curve } : { ...fitted.curve, creep_kpa: creep };
  emit('save', { ...material, curve });
}
</script>

<template>
  <section class="import panel">
    <div class="heading-row">
      <h2>A supplier’s cushion points</h2>
      <BButton size="sm" variant="link" @click="emit('close')">Close</BButton>
    </div>
    <FileText
      v-model="csv"
      label="Points, a line each"
      name="points"
      hint="material, thickness_mm, drop_mm, static_stress_kpa, peak_g; at least three at different energies"
    />
    <p v-if="trouble" v-say class="trouble">{{ trouble }}</p>
    <BButton @click="fit">Fit a and b</BButton>
    <article v-for="curve in curves" :key="curve.material" :data-fit="curve.material">
      <h3>{{ curve.material }}</h3>
      <FitPicture :fitted="curve.fitted" />
      <p class="figure">
        a {{ curve.fitted.curve.a_kpa.toPrecision(4) }} kPa, b
        {{ curve.fitted.curve.b_m3_per_kj.toPrecision(3) }} m³/kJ, R² {{ curve.fitted.r_squared.toFixed(3) }},
        e·a·b {{ curve.fitted.efficiency.toFixed(2) }} (usually 3 to 5), from
        {{ curve.fitted.points.length }} points
      </p>
      <p v-for="warning in curve.fitted.warnings" :key="warning" class="mind">{{ warning }}</p>
      <label class="onto">
        Put it on
        <BFormSelect v-model="onto[curve.material]" name="onto">
          <option v-for="{ id, name } in materials" :key="id" :value="id">{{ name }}</option>
        </BFormSelect>
      </label>
      <BButton variant="primary" :disabled="!onto[curve.material]" @click="put(curve)">
        Take this curve for the {{ shelf.one }}
      </BButton>
    </article>
  </section>
</template>

<style scoped>
.import {
  padding: 8px 16px 16px;
}
h3 {
  margin: 12px 0 4px;
  font-size: var(--type-strong);
}
.trouble {
  color: var(--rowan);
  font-weight: 600;
}
.mind {
  padding-left: 10px;
  border-left: 4px solid var(--amber-moss);
}
.onto {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
</style>
