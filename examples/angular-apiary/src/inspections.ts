import { Injectable } from '@angular/core';
import { logInspection, type Inspection, type Inspections } from '../../shared/inspection';

/** Keeps inspections at the yard's own backend. */
@Injectable({ providedIn: 'root' })
export class YardInspections implements Inspections {
  log(inspection: Inspection): Promise<void> {
    return logInspection(inspection);
  }
}
