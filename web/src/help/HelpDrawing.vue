<script setup lang="ts">
import type { HelpPicture } from './pages';

defineProps<{ picture: HelpPicture }>();
</script>

<template>
  <svg viewBox="0 0 240 96" class="help-drawing" aria-hidden="true">
    <g fill="none" stroke="var(--peat)" stroke-width="1.5" stroke-linejoin="round">
      <g v-if="picture === 'piece'">
        <rect x="84" y="10" width="52" height="62" fill="var(--wood)" />
        <rect x="90" y="16" width="40" height="50" fill="var(--heather)" />
        <rect x="156" y="10" width="10" height="62" fill="var(--wood)" />
        <path d="M84 84h52M84 80v8M136 80v8M66 10v62M62 10h8M62 72h8M156 84h10M156 80v8M166 80v8" />
      </g>
      <g v-else-if="picture === 'layers'">
        <rect x="30" y="12" width="180" height="72" fill="var(--card)" />
        <rect x="40" y="20" width="160" height="56" fill="var(--bubble)" />
        <rect x="58" y="30" width="124" height="36" fill="var(--foam)" />
        <rect x="66" y="40" width="108" height="16" fill="var(--heather)" />
      </g>
      <g v-else-if="picture === 'box'">
        <path d="M40 34h160v36H40z" fill="var(--blank)" />
        <path d="M40 34V14h76v20M124 34V14h76v20M40 70v18h76V70M124 70v18h76V70" fill="var(--blank)" />
        <path d="M80 34v36M120 34v36M160 34v36" stroke-dasharray="5 4" />
      </g>
      <g v-else-if="picture === 'price'">
        <path d="M30 84V70h40V54h40V38h40V22h60" />
        <path d="M126 84V42" stroke="var(--heather)" stroke-width="3" />
        <circle cx="126" cy="38" r="6" fill="var(--heather)" stroke="none" />
        <path d="M30 84h180" />
      </g>
      <g v-else-if="picture === 'step'">
        <rect x="34" y="20" width="110" height="56" fill="var(--card)" />
        <rect x="46" y="30" width="86" height="36" fill="var(--bubble)" />
        <path d="M160 48h36M186 38l10 10-10 10" stroke-width="3" />
        <path d="M58 48l8 8 14-16" stroke="var(--moss)" stroke-width="4" />
      </g>
      <g v-else-if="picture === 'scale'">
        <rect x="76" y="20" width="88" height="36" fill="var(--card)" />
        <path d="M60 62h120l8 22H52z" fill="var(--paper)" />
        <rect x="98" y="68" width="44" height="11" fill="var(--lichen)" />
      </g>
      <g v-else-if="picture === 'label'">
        <path d="M56 30l30-16h112v52l-30 18H56z" fill="var(--card)" />
        <path d="M56 30h112v54M168 30l30-16" />
        <rect x="72" y="40" width="58" height="34" fill="var(--paper)" />
        <path d="M80 48h30M80 54h22M80 62v8M84 62v8M90 62v8M94 62v8M100 62v8M108 62v8" />
      </g>
      <g v-else-if="picture === 'calendar'">
        <rect x="72" y="16" width="96" height="68" fill="var(--paper)" />
        <path d="M72 34h96M96 10v12M144 10v12" />
        <path d="M84 46h12M108 46h12M132 46h12M84 60h12M132 60h12M84 73h12M108 73h12" stroke-width="3" />
        <path d="M106 60l6 6 10-12" stroke="var(--moss)" stroke-width="4" />
      </g>
      <g v-else-if="picture === 'shelf'">
        <rect x="34" y="30" width="30" height="50" fill="var(--card)" />
        <rect x="76" y="46" width="52" height="34" fill="var(--card)" />
        <rect x="140" y="16" width="20" height="64" fill="var(--card)" />
        <rect x="172" y="52" width="36" height="28" fill="var(--lichen)" />
        <path d="M20 80h200" stroke-width="3" />
      </g>
      <g v-else-if="picture === 'roll'">
        <ellipse cx="80" cy="48" rx="26" ry="34" fill="var(--bubble)" />
        <ellipse cx="80" cy="48" rx="8" ry="11" fill="var(--card)" />
        <path d="M80 14h110v68H80" fill="none" />
        <path d="M110 26h66M110 40h66M110 54h66M110 68h66" stroke="var(--bubble-line)" />
      </g>
      <g v-else>
        <path d="M30 26h180M30 48h180M30 70h180" />
        <circle cx="92" cy="26" r="8" fill="var(--paper)" />
        <circle cx="150" cy="48" r="8" fill="var(--heather)" />
        <circle cx="66" cy="70" r="8" fill="var(--paper)" />
      </g>
    </g>
  </svg>
</template>

<style scoped>
.help-drawing {
  display: block;
  width: 100%;
  height: 112px;
  margin-bottom: 12px;
  padding: 8px;
  background: var(--bog-cotton);
}
</style>
