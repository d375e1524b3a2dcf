import { createApp } from 'vue';
import { createRouter, createWebHashHistory } from 'vue-router';
import '../../shared/styles.css';
import { routes } from './routes';
import YardShell from './YardShell.vue';

const router = createRouter({ history: createWebHashHistory(), routes });
createApp(YardShell).use(router).mount('#root');
