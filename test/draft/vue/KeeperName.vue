<script setup lang="ts">
import { useKeeper } from './keeper';

const { name } = useKeeper();
</script>

<template>
  <p>
    Signed in as <b>{{ name }}</b>
  </p>
</template>
