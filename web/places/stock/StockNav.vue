<script setup lang="ts">
import { RouterLink } from 'vue-router'
</script>

<template>
  <div class="d-flex gap-4 align-items-baseline mb-3">
    <h1>Stock</h1>
    <nav class="d-flex gap-3" aria-label="Stock">
      <RouterLink to="/stock">Machines, resins</RouterLink>
      <RouterLink to="/stock/paints">Paints</RouterLink>
      <RouterLink to="/stock/mixes">Mixing table</RouterLink>
      <RouterLink to="/stock/materials">Materials, and what to buy</RouterLink>
    </nav>
  </div>
</template>

<style scoped>
a {
  color: inherit;
  text-decoration: none;
  padding-bottom: 2px;
}
a.router-link-exact-active {
  border-bottom: 2px solid var(--action);
  font-weight: 600;
}
</style>
