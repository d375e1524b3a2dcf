import { ChangeDetectionStrategy, Component, DestroyRef, inject, input, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { doubtOfPhoto } from '../../shared/photos';
import { Photos } from './photos';

/** Takes photos of frames, dropped or chosen, and tells how much of each has gone. */
@Component({
  selector: 'photo-drop',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section
      class="photos"
      [class.over]="isOver()"
      aria-label="Photos"
      (dragenter)="isOver.set(true)"
      (dragleave)="isOver.set(false)"
      (dragover)="$event.preventDefault()"
      (drop)="drop($event)"
    >
      <p>Drop a photo of a frame here</p>
      <button type="button" [disabled]="sending() !== undefined" (click)="file.click()">
        Choose a photo
      </button>
      <input #file type="file" accept="image/*" hidden (change)="send(file.files?.[0])" />
      @if (sending(); as photo) {
        <progress [attr.aria-label]="'Sending ' + photo.name" [value]="photo.gone"></progress>
      }
      @if (kept()) {
        <p role="status">{{ kept() }} is kept</p>
      }
      @if (refused()) {
        <p role="alert">{{ refused() }}</p>
      }
    </section>
  `,
  host: { style: 'display: contents' },
})
export class PhotoDrop {
  readonly hiveId = input.required<string>();
  protected readonly isOver = signal(false);
  protected readonly sending = signal<{ name: string; gone: number } | undefined>(undefined);
  protected readonly kept = signal<string | undefined>(undefined);
  protected readonly refused = signal<string | undefined>(undefined);
  readonly #photos = inject(Photos);
  readonly #destroyed = inject(DestroyRef);

  protected drop(event: DragEvent): void {
    event.preventDefault();
    this.isOver.set(false);
    this.send(event.dataTransfer?.files[0]);
  }

  protected send(photo: File | undefined): void {
    if (!photo) return;
    const { name } = photo;
    this.kept.set(undefined);
    this.refused.set(doubtOfPhoto(photo));
    if (this.refused()) return;
    this.sending.set({ name, gone: 0 });
    this.#photos
      .send(this.hiveId(), photo)
      .pipe(takeUntilDestroyed(this.#destroyed))
      .subscribe({
        next: (gone) => this.sending.set({ name, gone }),
        complete: () => this.end(this.kept, name),
        error: () => this.end(this.refused, `${name} could not be sent`),
      });
  }

  private end(outcome: { set(text: string): void }, text: string): void {
    this.sending.set(undefined);
    outcome.set(text);
  }
}
