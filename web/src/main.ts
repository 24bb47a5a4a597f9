import './styles/main.scss';

import { createApp } from 'vue';

import App from './App.vue';
import { watchParts } from './frame/parts';
import { keepPage } from './kept/remembered';
import { router } from './router';

watchParts(router);
createApp(App).use(router).mount('#app');
// Whatever was opened once opens while the server is away, from the first page on.
keepPage();
