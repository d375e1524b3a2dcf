<script setup lang="ts">
import { ref } from 'vue';
import { doubtOfPhoto, sendPhoto } from '../../shared/photos';

const props = defineProps<{ hiveId: string }>();
const input = ref<HTMLInputElement>();
const isOver = ref(false);
const sending = ref<{ name: string; gone: number }>();
const kept = ref<string>();
const refused = ref<string>();

async function send(photo: File | undefined) {
  if (!photo) return;
  const { name } = photo;
  kept.value = undefined;
  refused.value = doubtOfPhoto(photo);
  if (refused.value) return;
  sending.value = { name, gone: 0 };
  try {
    for await (const gone of sendPhoto(props.hiveId, photo)) sending.value = { name, gone };
    kept.value = name;
  } catch {
    refused.value = `${name} could not be sent`;
  }
  sending.value = undefined;
}
function drop({ dataTransfer }: DragEvent) {
  isOver.value = false;
  void send(dataTransfer?.files[0]);
}
</script>

<!-- Takes photos of frames, dropped or chosen, and tells how much of each has gone. -->
<template>
  <section
    class="photos"
    :class="{ over: isOver }"
    aria-label="Photos"
    @dragenter="isOver = true"
    @dragleave="isOver = false"
    @dragover.prevent
    @drop.prevent="drop"
  >
    <p>Drop a photo of a frame here</p>
    <button type="button" :disabled="sending !== undefined" @click="input?.click()">Choose a photo</button>
    <input ref="input" type="file" accept="image/*" hidden @change="send(input?.files?.[0])" />
    <progress v-if="sending" :aria-label="`Sending ${sending.name}`" :value="sending.gone" />
    <p v-if="kept" role="status">{{ kept }} is kept</p>
    <p v-if="refused" role="alert">{{ refused }}</p>
  </section>
</template>
