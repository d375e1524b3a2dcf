<script setup lang="ts">
import { ref } from 'vue';
import { useSession } from './session';

const { keeper, signIn, signOut } = useSession();
const name = ref('');
</script>

<!-- Lets only those in who have signed in. -->
<template>
  <template v-if="keeper !== null">
    <p class="keeper">
      Signed in as <strong data-testid="keeper">{{ keeper }}</strong>
      <button type="button" @click="signOut">Sign out</button>
    </p>
    <slot />
  </template>
  <form v-else class="gate" aria-label="Sign in" @submit.prevent="signIn(name.trim())">
    <h2>Who is in the yard?</h2>
    <label>
      Keeper
      <input v-model="name" autocomplete="off" />
    </label>
    <button type="submit" :disabled="name.trim() === ''">Sign in</button>
  </form>
</template>
