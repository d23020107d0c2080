<script setup lang="ts">
import { RouterLink } from 'vue-router'
</script>

<template>
  <div class="d-flex gap-4 align-items-baseline mb-3">
    <h1>{{ $t('stock.stockNav.stock') }}</h1>
    <nav class="d-flex gap-3" :aria-label="$t('stock.stockNav.stock')">
      <RouterLink to="/stock">{{ $t('stock.stockNav.printersResins') }}</RouterLink>
      <RouterLink to="/stock/paints">{{ $t('stock.stockNav.paints') }}</RouterLink>
      <RouterLink to="/stock/mixes">{{ $t('stock.stockNav.mixingTable') }}</RouterLink>
      <RouterLink to="/stock/materials">{{ $t('stock.stockNav.materialsAndWhatTo') }}</RouterLink>
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
