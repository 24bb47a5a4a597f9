<template>
  <!-- Patterns that every drawing refers to; readable in black, never told apart by colour alone. -->
  <svg class="patterns" width="0" height="0" aria-hidden="true">
    <defs>
      <pattern id="pattern-fill" width="18" height="12" patternUnits="userSpaceOnUse">
        <path d="M0 9L4 2 9 10 14 3 18 9" fill="none" stroke="var(--fill-line)" stroke-width="1" />
      </pattern>
      <pattern id="pattern-fibreboard" width="5" height="5" patternUnits="userSpaceOnUse">
        <path d="M0 5L5 0" stroke="var(--card-line)" stroke-width="1" />
      </pattern>
      <pattern id="pattern-plywood" width="40" height="4" patternUnits="userSpaceOnUse">
        <path d="M0 1H26M12 3H40" stroke="var(--card-line)" stroke-width="0.8" />
      </pattern>
      <pattern id="pattern-tape" width="8" height="10" patternUnits="userSpaceOnUse">
        <path d="M1 9L7 1" stroke="var(--peat)" stroke-width="1.4" />
      </pattern>
      <pattern id="pattern-foam" width="5" height="5" patternUnits="userSpaceOnUse">
        <circle cx="1.5" cy="1.5" r="0.7" fill="var(--peat-soft)" />
        <circle cx="4" cy="4" r="0.7" fill="var(--peat-soft)" />
      </pattern>
    </defs>
  </svg>
</template>

<style scoped>
.patterns {
  position: absolute;
}
</style>
