import { bootstrapApplication } from '@angular/platform-browser';
import '../../shared/styles.css';
import { YardShell } from './yard-shell';

void bootstrapApplication(YardShell);
