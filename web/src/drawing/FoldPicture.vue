<script setup lang="ts">
import { useElementSize } from '@vueuse/core';
import {
  AmbientLight,
  Box3,
  DirectionalLight,
  PerspectiveCamera,
  Scene,
  Vector3,
  WebGLRenderer,
} from 'three';
import { OrbitControls } from 'three/examples/jsm/controls/OrbitControls.js';
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue';

import type { Blank } from '@/api/types';

import { foldScene } from './foldScene';

/** The blank as it folds, in space: drag to turn it. */
const { blank, frames, caliper, at } = defineProps<{
  blank: Blank;
  frames: number[][][];
  caliper: number;
  /** Which picture, or between which two. */
  at: number;
}>();
const emit = defineEmits<{ unseen: [] }>();

const stage = useTemplateRef('stage');
const size = useElementSize(stage);
const VIEW_DEG = 32;
/** A box fills less of the ball around it than its corners reach. */
const CLOSE = 0.84;
/** What lies flat is wider than it is high, seen from above. */
const ASPECT = 0.75;
/** From where one looks at first: from the lower edge, above, a little aside. */
const FROM = new Vector3(-0.35, -0.8, 0.75).normalize();

let draw: (() => void) | undefined;
let leave: (() => void) | undefined;

/** Whether this machine draws in space at all. */
function canDraw(): boolean {
  return document.createElement('canvas').getContext('webgl2') !== null;
}

function begin(host: HTMLElement): void {
  const renderer = new WebGLRenderer({ antialias: true, alpha: true });
  host.append(renderer.domElement);
  const scene = new Scene();
  scene.add(new AmbientLight('#ffffff', 1.9));
  const sun = new DirectionalLight('#ffffff', 1.5);
  sun.position.set(-0.4, -0.6, 1);
  scene.add(sun);
  const camera = new PerspectiveCamera(VIEW_DEG, 1, 1, 100_000);
  camera.up.set(0, 0, 1);
  const controls = new OrbitControls(camera, renderer.domElement);
  controls.enableZoom = false;
  controls.enablePan = false;
  let folded = foldScene(blank, frames, caliper);
  scene.add(folded.group);

  /** Where it lies and how large it is, flat and folded. */
  const seen = [0, 1].map(() => ({ middle: new Vector3(), reach: 1 }));
  function survey(): void {
    [0, frames.length - 1].forEach((picture, end) => {
      folded.lay(picture);
      const box = new Box3().setFromObject(folded.group);
      const found = seen[end];
      if (found) found.reach = box.getSize(found.middle).length() / 2;
      if (found) box.getCenter(found.middle);
    });
  }

  /** Keeps to the side from which one looks, as near as what is folded so far allows. */
  function follow(from: Vector3): void {
    const [flat, closed] = seen;
    if (!flat || !closed) return;
    const share = at / Math.max(frames.length - 1, 1);
    controls.target.lerpVectors(flat.middle, closed.middle, share);
    const reach = flat.reach + (closed.reach - flat.reach) * share;
    const wide = Math.min(1, camera.aspect * ASPECT);
    const away = (reach * CLOSE) / (Math.tan((VIEW_DEG * Math.PI) / 360) * wide);
    camera.position.copy(controls.target).addScaledVector(from, away);
    camera.lookAt(controls.target);
  }

  survey();
  const from = FROM.clone();
  draw = () => {
    folded.lay(at);
    follow(from);
    renderer.render(scene, camera);
  };
  controls.addEventListener('change', () => {
    from.subVectors(camera.position, controls.target).normalize();
    draw?.();
  });
  const stops = [
    watch(
      [size.width, size.height],
      ([width, height]) => {
        renderer.setPixelRatio(Math.min(window.devicePixelRatio, 2));
        renderer.setSize(width, height);
        camera.aspect = width / Math.max(height, 1);
        camera.updateProjectionMatrix();
        draw?.();
      },
      { immediate: true },
    ),
    watch(
      () => [blank, frames, caliper],
      () => {
        scene.remove(folded.group);
        folded.dispose();
        folded = foldScene(blank, frames, caliper);
        scene.add(folded.group);
        survey();
        draw?.();
      },
    ),
    watch(
      () => at,
      () => draw?.(),
    ),
  ];
  leave = () => {
    for (const stop of stops) stop();
    folded.dispose();
    controls.dispose();
    renderer.dispose();
    renderer.domElement.remove();
  };
}

onMounted(() => {
  if (stage.value && canDraw()) begin(stage.value);
  else emit('unseen');
});
onBeforeUnmount(() => leave?.());
</script>

<template>
  <div ref="stage" class="stage" aria-hidden="true" />
</template>

<style scoped lang="scss">
@use '@/styles/at';

.stage {
  height: 360px;
  overflow: hidden;
  cursor: grab;
  touch-action: pan-y;
}
.stage :deep(canvas) {
  display: block;
}
@include at.phone {
  .stage {
    height: 280px;
  }
}
</style>
