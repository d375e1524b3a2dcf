import 'simulacra/jest';
import { VERSION } from '@angular/core';
import { isolate } from 'simulacra/angular';
import { cases } from './angular-cases';
import { comesToRest } from './runs';

comesToRest(`Angular ${VERSION.full}`, isolate as never, cases);
