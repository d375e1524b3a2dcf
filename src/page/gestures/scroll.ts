import { isSimulated } from '../styles';
import { acrossOf, downOf, type Distance } from './drag';
import { dispatch, tell } from './events';
import { holding, type Person } from './person';
import { moveTo } from './pointer';
import { heardOnce } from './hearing';

/** Turns the wheel over an element, which scrolls it unless that is prevented. */
export async function scroll(person: Person, target: Element, by: Distance): Promise<void> {
  await moveTo(person, target);
  const [deltaX, deltaY] = [acrossOf(by), downOf(by)];
  const init = { ...person.place, ...holding(person), deltaX, deltaY, deltaMode: 0 };
  if (!(await tell(person.send, target, 'wheel', init))) return;
  const moving = scrollerAround(target, deltaX, deltaY);
  const before = [moving.scrollLeft, moving.scrollTop];
  let told: Promise<void> | undefined;
  await person.send(() => {
    moving.scrollLeft = Math.max(0, moving.scrollLeft + deltaX);
    moving.scrollTop = Math.max(0, moving.scrollTop + deltaY);
    const hasMoved = moving.scrollLeft !== before[0] || moving.scrollTop !== before[1];
    if (!hasMoved) return;
    if (!isSimulated(moving.ownerDocument)) {
      told = heardOnce(moving.ownerDocument, 'scroll');
      return;
    }
    dispatch(moving, 'scroll');
    dispatch(moving, 'scrollend');
  });
  await told;
}

/** What a turn of the wheel moves: without a layout the element itself, unless one around it says so. */
function scrollerAround(target: Element, deltaX: number, deltaY: number): Element {
  const { ownerDocument } = target;
  const view = ownerDocument.defaultView!;
  for (let at: Element | null = target; at; at = at.parentElement) {
    const { overflow, overflowX, overflowY } = view.getComputedStyle(at);
    // A simulated page does not split the short form.
    const isScrolled = (one: string | undefined) => /\b(auto|scroll|overlay)\b/.test(one || overflow);
    const canX = deltaX !== 0 && isScrolled(overflowX);
    const canY = deltaY !== 0 && isScrolled(overflowY);
    if (
      isSimulated(ownerDocument)
        ? canX || canY
        : (canX && at.scrollWidth > at.clientWidth) || (canY && at.scrollHeight > at.clientHeight)
    )
      return at;
  }
  return isSimulated(ownerDocument) ? target : (ownerDocument.scrollingElement ?? target);
}
