import 'simulacra/jest';
import { conform } from '../../conformance/specification';
import { vueKit } from '../../conformance/vue-kit';

conform(vueKit);
