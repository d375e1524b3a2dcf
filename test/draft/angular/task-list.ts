import { Component, computed, input } from '@angular/core';

@Component({
  selector: 'app-task-list',
  template: `
    @if (open().length === 0) {
      <p>Nothing needs doing</p>
    }
    <ul aria-label="Tasks">
      @for (task of tasks(); track task.id) {
        <li>{{ task.title }}</li>
      }
    </ul>
  `,
})
export class TaskList {
  readonly tasks = input.required<{ id: string; title: string; done: boolean }[]>();
  readonly open = computed(() => this.tasks().filter(({ done }) => !done));
}
