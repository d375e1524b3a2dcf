import { defineComponent } from 'vue';
import { height, phase } from '../tides';

const taken = phase;

export const Shore = defineComponent({ name: 'Shore', setup: () => () => `${taken} ${height}` });
