import { Injectable } from '@angular/core';
import { from, type Observable } from 'rxjs';
import { sendPhoto, type Progress } from '../../shared/photos';

/** Keeps photos at the yard's own backend. */
@Injectable({ providedIn: 'root' })
export class Photos {
  /** Tells how much of a photo has gone, until all has. */
  send(hiveId: string, photo: File): Observable<Progress> {
    return from(sendPhoto(hiveId, photo));
  }
}
