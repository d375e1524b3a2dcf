import 'simulacra/jest';
import { isolate } from 'simulacra/vue';
import { text } from 'simulacra';
import { defineComponent, onMounted, ref } from 'vue';

// No two subjects were up before in this file: nothing has followed anybody's promises yet.
it('answers two subjects that are asked for in one go each by its own routes, after an await too', async () => {
  const Asker = defineComponent({
    setup() {
      const hive = ref('');
      onMounted(async () => {
        await new Promise((resolve) => setTimeout(resolve, 5));
        await Promise.resolve();
        const answer = await fetch('/api/hive');
        hive.value = ((await answer.json()) as { name: string }).name;
      });
      return { hive };
    },
    template: '<p>{{ hive }}</p>',
  });
  const first = { network: { 'GET /api/hive': { name: 'Clover' } }, leaks: 'allowed' } as const;
  await (await isolate(Asker, first)).takeDown();
  const names = ['Anemone', 'Borage'];
  const both = await Promise.all(
    names.map((name) => isolate(Asker, { network: { 'GET /api/hive': { name } } })),
  );
  for (const [at, subject] of both.entries()) await subject.appears(text(names[at]!));
});
