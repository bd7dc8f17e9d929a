<script setup lang="ts">
import { RouterLink } from 'vue-router';
</script>

<template>
  <main>
    <h1>There is no such page</h1>
    <p><RouterLink to="/">Go to the start</RouterLink></p>
  </main>
</template>
