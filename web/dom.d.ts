// What the checks of our scripts' types take for granted: which element a selector finds, and what an
// event comes to, is for the browser tests to prove; that modules are used as they say is for tsc.
interface ParentNode {
  querySelector(selectors: string): any;
  querySelectorAll(selectors: string): NodeListOf<any>;
}
interface Document {
  getElementById(id: string): any;
  createElement(name: string): any;
  elementFromPoint(x: number, y: number): any;
}
interface Element {
  closest(selectors: string): any;
  children: any;
  dataset: any;
  hidden: any;
  style: any;
  title: any;
  value: any;
  checked: any;
  disabled: any;
  focus: any;
  click: any;
  offsetHeight: any;
  offsetWidth: any;
  contentDocument: any;
  contentWindow: any;
  innerText: any;
  inert: any;
  blur: any;
  select: any;
  showPopover: any;
  hidePopover: any;
  togglePopover: any;
  nextElementSibling: any;
  previousElementSibling: any;
  parentElement: any;
  firstElementChild: any;
  lastElementChild: any;
}
interface EventTarget {
  closest: any;
  dataset: any;
  value: any;
  matches: any;
  focus: any;
  files: any;
  checked: any;
  classList: any;
  getBoundingClientRect: any;
  setPointerCapture: any;
  parentElement: any;
  id: any;
  isContentEditable: any;
  tagName: any;
  contains: any;
  querySelector: any;
  type: any;
  selectionStart: any;
  error: any;
  result: any;
  response: any;
  status: any;
  reset: any;
  open: any;
  setAttribute: any;
  isConnected: any;
  hasPointerCapture: any;
  releasePointerCapture: any;
}
interface Event {
  detail: any;
  key: any;
  clientX: any;
  clientY: any;
  pointerId: any;
  submitter: any;
  newState: any;
  oldState: any;
  ctrlKey: any;
  metaKey: any;
  shiftKey: any;
  altKey: any;
  clipboardData: any;
  relatedTarget: any;
  dataTransfer: any;
  button: any;
  deltaY: any;
  deltaX: any;
  pointerType: any;
  inputType: any;
  isComposing: any;
}
interface Window {
  htmx: any;
  Alpine: any;
  Go: any;
  EyeDropper: any;
  openplotGestures: any;
}
declare const htmx: any, Alpine: any, Go: any;
