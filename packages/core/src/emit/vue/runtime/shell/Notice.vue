<script setup lang="ts">
import { onScopeDispose, ref } from 'vue';
import { notices } from './notices';
import './notice.css';

const notice = ref(notices.now());
onScopeDispose(notices.subscribe(() => (notice.value = notices.now())));
</script>

<!-- What is said over whatever screen is there; what did not work is said at once. -->
<template>
  <div class="notice">
    <div
      v-for="isProblem in [true, false]"
      :key="`${isProblem}`"
      :role="isProblem ? 'alert' : 'status'"
    >
      <p v-if="notice?.isProblem === isProblem">
        {{ notice.text }} <button type="button" @click="notices.forget()">Close</button>
      </p>
    </div>
  </div>
</template>
