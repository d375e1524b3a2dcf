import { bootstrapApplication } from '@angular/platform-browser';
import { provideRouter, withHashLocation } from '@angular/router';
import '../../shared/styles.css';
import { routes } from './routes';
import { YardShell } from './yard-shell';

void bootstrapApplication(YardShell, { providers: [provideRouter(routes, withHashLocation())] });
