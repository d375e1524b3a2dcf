import 'simulacra/jest';
import { VERSION } from '@angular/core';
import { angularKit } from './angular-kit';
import { conform } from './specification';

conform(angularKit(`Angular ${VERSION.full}`));
