import 'simulacra/jest';
import { reactKit } from '../../conformance/react-kit';
import { conform } from '../../conformance/specification';

conform(reactKit);
