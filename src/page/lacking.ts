import { isError } from '../core/is-error';

/** What a browser has and a simulated page may lack, by the name it is asked for. */
const globals = new Set(
  [
    'AnimationEvent AudioContext BarcodeDetector BroadcastChannel Cache ClipboardEvent ClipboardItem CommandEvent',
    'CompressionStream CookieStore CSSStyleSheet DataTransfer DecompressionStream DeviceMotionEvent',
    'DeviceOrientationEvent DOMMatrix DOMPoint DOMQuad DOMRect DragEvent EditContext EventSource EyeDropper FontFace',
    'Highlight IDBKeyRange IdleDeadline ImageBitmap ImageCapture ImageData KeyframeEffect MediaMetadata MediaRecorder',
    'MediaSource MediaStream MediaQueryList MessagePort MutationObserver Notification OffscreenCanvas PaymentRequest',
    'Path2D PerformanceObserver PointerEvent PromiseRejectionEvent ReportingObserver RTCPeerConnection Sanitizer',
    'ServiceWorker SharedWorker SpeechSynthesisUtterance TaskController ToggleEvent Touch TransitionEvent',
    'TrustedTypePolicy URLPattern ViewTransition WebGLRenderingContext WebGL2RenderingContext WebTransport WheelEvent',
    'Worker Worklet XPathEvaluator caches cookieStore createImageBitmap indexedDB navigation reportError scheduler',
    'showOpenFilePicker showSaveFilePicker speechSynthesis trustedTypes structuredClone ResizeObserver',
    'IntersectionObserver matchMedia CSS visualViewport MessageChannel requestIdleCallback cancelIdleCallback',
  ]
    .join(' ')
    .split(' '),
);

/** Members that show what was missing, and where it belongs. */
const owners: Readonly<Record<string, string>> = {
  ...of('navigator.clipboard', 'writeText readText'),
  ...of('navigator.geolocation', 'getCurrentPosition watchPosition'),
  ...of('navigator.mediaDevices', 'getUserMedia getDisplayMedia enumerateDevices'),
  ...of('navigator.serviceWorker', 'getRegistration getRegistrations'),
  ...of('window.speechSynthesis', 'speak getVoices'),
  ...of('window.scheduler', 'postTask'),
};

function of(owner: string, members: string): Record<string, string> {
  return Object.fromEntries(members.split(' ').map((member) => [member, owner]));
}

const drawing =
  /reading '(fillRect|clearRect|beginPath|measureText|setTransform|drawImage|createLinearGradient|getImageData|fillText|scale|save|canvas)'/;

const methods = new Set(
  [
    'animate getAnimations requestFullscreen exitFullscreen requestPointerLock startViewTransition scrollIntoView',
    'scrollIntoViewIfNeeded scrollTo scrollBy showModal showPopover hidePopover togglePopover setHTML moveBefore',
    'computedStyleMap attachInternals checkVisibility setPointerCapture execCommand elementFromPoint elementsFromPoint',
    'caretRangeFromPoint caretPositionFromPoint getBBox getCTM getScreenCTM createSVGPoint createSVGMatrix',
    'getTotalLength getPointAtLength getComputedTextLength replaceSync createObjectURL revokeObjectURL vibrate share',
    'sendBeacon matchMedia requestIdleCallback getClientRects createSVGTransform beginElement',
  ]
    .join(' ')
    .split(' '),
);

/** What the page lacks, where that made code throw; undefined for any other error. */
export function whatThePageLacks(error: unknown): string | undefined {
  if (!isError(error)) return undefined;
  const { name, message = '' } = error as Error;
  const [, bare] = name === 'ReferenceError' ? (/^(\w+) is not defined/.exec(message) ?? []) : [];
  if (bare) return globals.has(bare) && !(bare in globalThis) ? bare : undefined;
  if (name !== 'TypeError') return undefined;
  const [, path, member = ''] =
    /^((?:[\w$]+\.)*([\w$]+)) is not a (?:function|constructor)/.exec(message) ?? [];
  if (path) return lackingMember(path, member);
  const [, read] = /of undefined \(reading '(\w+)'\)/.exec(message) ?? [];
  const owner = read && Object.hasOwn(owners, read) ? owners[read] : undefined;
  if (owner && valueAt(owner) === undefined) return owner;
  return /^Cannot read properties of (null|undefined)/.test(message) && drawing.test(message) && !canDraw()
    ? "a canvas's drawing context"
    : undefined;
}

function lackingMember(path: string, member: string): string | undefined {
  const isOfWindow = /^(window|globalThis|self)\./.test(path);
  if (globals.has(member) && (isOfWindow || path === member) && !(member in globalThis)) return member;
  if (/^(navigator|document)\.\w+$/.test(path) && valueAt(path) === undefined)
    return methods.has(member) ? path : undefined;
  return methods.has(member) && !isKnown(member) ? `${member}()` : undefined;
}

const valueAt = (path: string): unknown =>
  path
    .replace(/^window\./, '')
    .split('.')
    .reduce<unknown>((at, name) => (at as Record<string, unknown> | undefined)?.[name], globalThis);

// Somewhere on the page there is such a method: then it was asked of what is something else.
const isKnown = (method: string): boolean =>
  ['Window', 'Document', 'Element', 'HTMLElement', 'SVGElement', 'HTMLDialogElement', 'Range', 'Navigator']
    .map((name) => (globalThis as unknown as Record<string, { prototype?: object }>)[name]?.prototype)
    .some((prototype) => prototype !== undefined && method in prototype);

function canDraw(): boolean {
  try {
    return Boolean(document.createElement('canvas').getContext('2d'));
  } catch {
    return false;
  }
}
