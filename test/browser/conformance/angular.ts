import '@angular/compiler';
import 'simulacra/jest';
import { VERSION } from '@angular/core';
import { angularKit } from '../../conformance/angular-kit';
import { conform } from '../../conformance/specification';
import { expectDiffering } from './differing';

expectDiffering();
conform(angularKit(`Angular ${VERSION.full}`));
