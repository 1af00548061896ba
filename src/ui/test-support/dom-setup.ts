import "@testing-library/jest-dom";

/** What the tests' DOM lacks and Ant Design asks for. */
Object.defineProperty(window, "matchMedia", {
  value: (query: string) => ({
    matches: false,
    media: query,
    onchange: null,
    addEventListener() {},
    removeEventListener() {},
    addListener() {},
    removeListener() {},
    dispatchEvent: () => false,
  }),
});
globalThis.ResizeObserver = class {
  observe() {}
  unobserve() {}
  disconnect() {}
};
class TimeoutChannel {
  port1: { onmessage: (() => void) | null } = { onmessage: null };
  port2 = { postMessage: () => setTimeout(() => this.port1.onmessage?.(), 0) };
}
// Node's own channel keeps Jest alive for ever
globalThis.MessageChannel = TimeoutChannel as unknown as typeof MessageChannel;
const computed = window.getComputedStyle.bind(window);
window.getComputedStyle = (element) => computed(element); // no pseudo-elements there
