import { createApp } from 'vue';
import '../../shared/styles.css';
import YardShell from './YardShell.vue';

createApp(YardShell).mount('#root');
