import 'simulacra/jest';
import { Component, type Type } from '@angular/core';
import { isolate } from 'simulacra/angular';
import { MatButton } from '@angular/material/button';
import { MatCard } from '@angular/material/card';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatExpansionPanel } from '@angular/material/expansion';
import { MatIcon } from '@angular/material/icon';
import { MatList } from '@angular/material/list';
import { MatPaginator } from '@angular/material/paginator';
import { MatProgressBar } from '@angular/material/progress-bar';
import { MatSlideToggle } from '@angular/material/slide-toggle';
import { MatToolbar } from '@angular/material/toolbar';
import { Avatar } from 'primeng/avatar';
import { Badge } from 'primeng/badge';
import { Button } from 'primeng/button';
import { Card } from 'primeng/card';
import { Chip } from 'primeng/chip';
import { Message } from 'primeng/message';
import { Paginator } from 'primeng/paginator';
import { ProgressBar } from 'primeng/progressbar';
import { Tag } from 'primeng/tag';
import { ToggleSwitch } from 'primeng/toggleswitch';
import { sweep, type Piece } from './sweep';

function piece(component: Type<object>, markup: string, props: Record<string, unknown> = {}): Piece {
  const name = component.name.replace(/^_/, '');
  @Component({ selector: `parent-of-${markup.slice(1, 9)}`, imports: [component], template: markup })
  class Parent {}
  return {
    name,
    component,
    alone: (options) => isolate(component, { props: props as never, ...options }),
    stubbed: () => isolate(Parent, { stub: [component] }),
  };
}

sweep('Angular Material', [
  piece(MatButton, '<button matButton>Log</button>'),
  piece(MatCard, '<mat-card>Anemone</mat-card>'),
  piece(MatCheckbox, '<mat-checkbox>Marked</mat-checkbox>', { checked: true }),
  piece(MatExpansionPanel, '<mat-expansion-panel>Ten</mat-expansion-panel>'),
  piece(MatIcon, '<mat-icon>home</mat-icon>'),
  piece(MatList, '<mat-list>Tasks</mat-list>'),
  piece(MatPaginator, '<mat-paginator />', { length: 40, pageSize: 10 }),
  piece(MatProgressBar, '<mat-progress-bar />', { value: 30 }),
  piece(MatSlideToggle, '<mat-slide-toggle>Night</mat-slide-toggle>', { checked: true }),
  piece(MatToolbar, '<mat-toolbar>Yard</mat-toolbar>'),
]);

sweep('PrimeNG', [
  piece(Avatar, '<p-avatar />', { label: 'A' }),
  piece(Badge, '<p-badge />', { value: '3' }),
  piece(Button, '<p-button />', { label: 'Log' }),
  piece(Card, '<p-card>Anemone</p-card>', { header: 'Anemone' }),
  piece(Chip, '<p-chip />', { label: 'calm' }),
  piece(Message, '<p-message>Frost</p-message>', { severity: 'warn' }),
  piece(Paginator, '<p-paginator />', { rows: 10, totalRecords: 40 }),
  piece(ProgressBar, '<p-progressbar />', { value: 30 }),
  piece(Tag, '<p-tag />', { value: 'new' }),
  piece(ToggleSwitch, '<p-toggleswitch />'),
]);
