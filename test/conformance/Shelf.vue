<script lang="ts">
import { defineComponent } from 'vue';
import { Weight } from './vue';

export default defineComponent({
  components: { Weight },
  props: { frames: { type: Number, required: true } },
  data: () => ({ open: false }),
  methods: {
    toggle() {
      this.open = !this.open;
    },
  },
});
</script>

<template>
  <div>
    <button @click="toggle">Toggle</button>
    <Weight v-if="open" :kilograms="frames" />
  </div>
</template>
