import 'simulacra/jest';
import { conform } from '../../conformance/specification';
import { vueKit } from '../../conformance/vue-kit';
import { expectDiffering } from './differing';

expectDiffering();
conform(vueKit);
