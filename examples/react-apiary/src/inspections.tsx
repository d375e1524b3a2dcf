import { createContext, useContext, type ReactNode } from 'react';
import { logInspection, type Inspection, type Inspections } from '../../shared/inspection';

/** Keeps inspections at the yard's own backend. */
export class YardInspections implements Inspections {
  log(inspection: Inspection): Promise<void> {
    return logInspection(inspection);
  }
}

export const InspectionsContext = createContext<Inspections>(new YardInspections());
InspectionsContext.displayName = 'InspectionsContext';

export const useInspections = (): Inspections => useContext(InspectionsContext);

/** Has the components inside of it keep their inspections elsewhere. */
export const InspectionsProvider = ({ at, children }: { at: Inspections; children?: ReactNode }) => (
  <InspectionsContext.Provider value={at}>{children}</InspectionsContext.Provider>
);
