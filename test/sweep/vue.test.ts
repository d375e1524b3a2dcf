import 'simulacra/jest';
import { defineComponent, h, type Component } from 'vue';
import { isolate } from 'simulacra/vue';
import PrimeVue from 'primevue/config';
import AutoComplete from 'primevue/autocomplete';
import Button from 'primevue/button';
import Checkbox from 'primevue/checkbox';
import DataTable from 'primevue/datatable';
import DatePicker from 'primevue/datepicker';
import Dialog from 'primevue/dialog';
import Menu from 'primevue/menu';
import Panel from 'primevue/panel';
import Select from 'primevue/select';
import Slider from 'primevue/slider';
import {
  AvatarRoot,
  CalendarRoot,
  CheckboxRoot,
  CollapsibleRoot,
  DialogRoot,
  NumberFieldRoot,
  ProgressRoot,
  RadioGroupRoot,
  SwitchRoot,
  TabsRoot,
} from 'reka-ui';
import { sweep, type Piece } from './sweep';

const piece =
  (wrap: readonly unknown[]) =>
  (name: string, component: Component, props: Record<string, unknown> = {}, content = 'Anemone'): Piece => {
    const slots = content ? { default: content } : {};
    const Parent = defineComponent({
      name: 'Parent',
      setup: () => () => h(component, props, content ? { default: () => content } : {}),
    });
    const given = { wrap: wrap as never[] };
    return {
      name,
      component,
      alone: (options) => isolate(component, { ...given, props: props as never, slots, ...options }),
      stubbed: () => isolate(Parent, { ...given, stub: [component] }),
    };
  };

const prime = piece([[PrimeVue, {}]]);
sweep('PrimeVue', [
  prime('AutoComplete', AutoComplete, { suggestions: ['Anemone'] }, ''),
  prime('Button', Button, { label: 'Log' }, ''),
  prime('Checkbox', Checkbox, { binary: true, modelValue: true }, ''),
  prime('DataTable', DataTable, { value: [{ name: 'Anemone' }] }, ''),
  prime('DatePicker', DatePicker, { inline: true }, ''),
  prime('Dialog', Dialog, { visible: true, header: 'Log it?' }),
  prime('Menu', Menu, { model: [{ label: 'Log' }] }, ''),
  prime('Panel', Panel, { header: 'Tasks' }),
  prime('Select', Select, { options: ['North', 'South'], modelValue: 'North' }, ''),
  prime('Slider', Slider, { modelValue: 4 }, ''),
]);

const reka = piece([]);
sweep('Reka UI', [
  reka('AvatarRoot', AvatarRoot),
  reka('CalendarRoot', CalendarRoot),
  reka('CheckboxRoot', CheckboxRoot, { modelValue: true }),
  reka('CollapsibleRoot', CollapsibleRoot),
  reka('DialogRoot', DialogRoot),
  reka('NumberFieldRoot', NumberFieldRoot, { modelValue: 3 }),
  reka('ProgressRoot', ProgressRoot, { modelValue: 3, max: 10 }),
  reka('RadioGroupRoot', RadioGroupRoot),
  reka('SwitchRoot', SwitchRoot, { modelValue: true }),
  reka('TabsRoot', TabsRoot, { modelValue: 'frames' }),
]);
