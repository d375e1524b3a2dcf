<script>
export default {
  props: { tasks: { type: Array, required: true }, title: String },
  computed: {
    open() {
      return this.tasks.filter(({ done }) => !done);
    },
  },
};
</script>

<template>
  <section>
    <h3>{{ title || 'Tasks' }}</h3>
    <p v-if="open.length === 0">Nothing needs doing</p>
    <ul v-else>
      <li v-for="task in tasks" :key="task.id">{{ task.title }}</li>
    </ul>
  </section>
</template>
