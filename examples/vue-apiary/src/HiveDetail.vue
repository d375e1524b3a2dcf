<script setup lang="ts">
import { computed } from 'vue';
import { RouterLink, useRoute } from 'vue-router';
import InspectionForm from './InspectionForm.vue';
import PhotoDrop from './PhotoDrop.vue';
import ScaleFeed from './ScaleFeed.vue';
import { useHive } from './useHive';

// The choice of yard is the board's affair.
defineOptions({ inheritAttrs: false });
const route = useRoute();
const hiveId = computed(() => String(route.params['hiveId']));
const found = useHive(hiveId);
</script>

<!-- The hive the address names. -->
<template>
  <section class="detail" aria-label="Hive">
    <RouterLink to="/">Back to the board</RouterLink>
    <p v-if="found.state === 'loading'" role="status">Looking for the hive</p>
    <p v-else-if="found.state === 'failed'" role="alert">There is no such hive</p>
    <template v-else>
      <h2>{{ found.hive.name }}</h2>
      <ScaleFeed :hive-id="hiveId" />
      <InspectionForm :hive-id="hiveId" />
      <PhotoDrop :hive-id="hiveId" />
    </template>
  </section>
</template>
