import 'simulacra/jest';
import { reactKit } from '../../conformance/react-kit';
import { conform } from '../../conformance/specification';
import { expectDiffering } from './differing';

expectDiffering();
conform(reactKit);
