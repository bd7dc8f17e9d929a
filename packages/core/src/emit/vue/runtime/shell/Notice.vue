<script setup lang="ts">
import { onScopeDispose, ref } from 'vue';
import { notices } from '../api/notices';
import './notice.css';

const text = ref(notices.now());
onScopeDispose(notices.subscribe(() => (text.value = notices.now())));
</script>

<!-- What did not work, said over whatever screen is there. -->
<template>
  <div role="alert" class="notice">
    <p v-if="text">{{ text }} <button type="button" @click="notices.forget()">Close</button></p>
  </div>
</template>
