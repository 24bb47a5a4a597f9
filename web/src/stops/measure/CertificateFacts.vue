<script setup lang="ts">
import DraftField from '@/parts/DraftField.vue';
import { usePiece } from '@/shipment/usePiece';

/** What the certificate of the piece in hand says, asked once and kept with it. */
const { piece } = usePiece();
</script>

<template>
  <details v-if="piece.certificate" class="facts">
    <summary>Certificate details</summary>
    <div class="fields">
      <DraftField path="piece.facts.artist" />
      <DraftField path="piece.facts.year" />
      <DraftField path="piece.facts.medium" />
      <DraftField path="piece.facts.edition" />
      <DraftField path="piece.facts.edition_of" />
      <DraftField path="piece.facts.signature" />
      <DraftField path="piece.facts.dated" />
    </div>
  </details>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(170px, 100%), 1fr));
  gap: 0 12px;
  align-items: end;
  margin-top: 4px;
}
.facts summary {
  display: list-item;
  min-height: 44px;
  line-height: 44px;
}
</style>
