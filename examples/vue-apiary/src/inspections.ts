import { inject, type InjectionKey } from 'vue';
import { logInspection, type Inspection, type Inspections } from '../../shared/inspection';

/** Keeps inspections at the yard's own backend. */
export class YardInspections implements Inspections {
  log(inspection: Inspection): Promise<void> {
    return logInspection(inspection);
  }
}

export const InspectionsKey: InjectionKey<Inspections> = Symbol('InspectionsKey');

export const useInspections = (): Inspections => inject(InspectionsKey, () => new YardInspections(), true);
